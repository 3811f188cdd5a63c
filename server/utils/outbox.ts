import { randomUUID } from 'node:crypto'
import { mkdir, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import MailComposer from 'nodemailer/lib/mail-composer'

/**
 * Where mail goes. The one that ships writes each message as an .eml file into the outbox folder, as a mail server's
 * drop folder takes it; a real one would hand the same message on.
 */
export interface MailOffice {
  /** Takes a message; answers with the name of the file it lies under. */
  send(message: Message): Promise<string>
}
export interface Message {
  readonly from: string
  readonly to: string
  readonly subject: string
  readonly text: string
  readonly attachment: { readonly name: string; readonly bytes: Buffer }
}
export const outboxFolder = (): string => process.env.CORVIT_OUTBOX ?? join(dataFolder(), 'outbox')

async function put(name: string, bytes: Buffer): Promise<string> {
  await mkdir(outboxFolder(), { recursive: true })
  try {
    await writeFile(join(outboxFolder(), name), bytes, { flag: 'wx', flush: true })
  } catch (error) {
    throw isFull(error) ? diskFull() : error
  }
  return name
}

export const outboxFiles: MailOffice = {
  async send({ from, to, subject, text, attachment }) {
    const composed = new MailComposer({
      from,
      to,
      subject,
      text,
      attachments: [
        {
          filename: attachment.name,
          content: attachment.bytes,
          contentType: 'application/pdf',
        },
      ],
    })
    return put(`${randomUUID()}.eml`, await composed.compile().build())
  },
}

/** A printer of labels: the one that ships prints into a PDF. */
export interface LabelPrinter {
  print(sheet: Buffer): Promise<string>
}
export const labelFiles: LabelPrinter = {
  print: sheet => put(`${randomUUID()}.pdf`, sheet),
}
