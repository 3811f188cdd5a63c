import { readFileSync, writeFileSync } from 'node:fs'
import {
  paperText,
  REPORT_VOICES,
  reportPaper,
  UnreadableFile,
  type Paper,
  type ReportVoice,
} from '#core'
import { readBundle, type Bundle } from '../server/files/bundle'
import { houseOf, readText, refuse, unreadable } from './input'

/** `corvit report FILE --voice V [--text | --out F.pdf]`: the report of a house in one voice. */
export async function reportCommand(args: readonly string[]): Promise<void> {
  let file: string | undefined
  let voice: ReportVoice = 'inspector'
  let out: string | undefined
  let isText = false
  for (let i = 0; i < args.length; i++) {
    const arg = args[i] ?? ''
    if (arg === '--voice') {
      const word = args[++i]
      voice =
        REPORT_VOICES.find(v => v === word) ??
        refuse(`--voice takes ${REPORT_VOICES.join(', ')}; found ${JSON.stringify(word ?? '')}`)
    } else if (arg === '--out') out = args[++i] ?? refuse('--out takes a file')
    else if (arg === '--text') isText = true
    else if (arg.startsWith('--')) refuse(`unknown option ${arg}`)
    else if (file === undefined) file = arg
    else refuse(`one file at a time; found also ${JSON.stringify(arg)}`)
  }
  if (file === undefined) return refuse('which file?')
  const bundle = file.endsWith('.zip') ? bundleOf(file) : undefined
  const text = bundle ? new TextDecoder().decode(bundle.log) : readText(file)
  const paper = reportPaper(houseOf(file, text), voice)
  if (out === undefined || isText) process.stdout.write(paperText(paper))
  if (out !== undefined) await writePdf(paper, out, bundle)
}

function bundleOf(file: string): Bundle {
  try {
    return readBundle(readFileSync(file))
  } catch (error) {
    if (error instanceof UnreadableFile) return unreadable(file, error.problems)
    const { code, message } = error as NodeJS.ErrnoException
    return refuse(`${file}: ${code === 'ENOENT' ? 'no such file' : message}`)
  }
}

async function writePdf(paper: Paper, out: string, bundle: Bundle | undefined): Promise<void> {
  const { renderPdf } = await import('../server/pdf/render')
  const { readType } = await import('../server/pdf/type')
  const { markedPicture } = await import('../server/pdf/pictures')
  const pdf = await renderPdf(paper, readType(), {
    pictureOf: async ({ hash, marks }) => {
      const bytes = bundle?.photos.get(hash)
      return bytes && markedPicture(bytes, marks)
    },
  })
  try {
    writeFileSync(out, pdf)
  } catch (error) {
    refuse(`${out} cannot be written: ${(error as Error).message}`)
  }
}
