import sharp from 'sharp'
import { strToU8, unzipSync, zipSync } from 'fflate'
import { Ledger, readJobFile, UnreadableFile, writeLog, type Problem } from '#core'
import {
  BUNDLE_LOG,
  foreignPhotos,
  readBundle,
  sha256,
  writeBundle,
  type Bundle,
} from '../../server/files/bundle'
import { checkBundle, hashesIn } from '../../server/files/unpack'
import { observe, panel, type Node } from '../support/house'

const stamp = { at: '2026-01-01T00:00:00.000Z', by: 'test', nextId: () => 'x' }
const picture = (shade: number) =>
  sharp({ create: { width: 8, height: 6, channels: 3, background: { r: shade, g: 0, b: 0 } } })
    .jpeg()
    .toBuffer()

let bundle: Bundle
let packed: Uint8Array
beforeAll(async () => {
  const photo = new Uint8Array(await picture(200))
  const hash = sha256(photo)
  const house: Node = {
    ...panel([{ id: 'b', space: 1, ratingAmps: 20, circuit: { id: 'c', label: 'Kitchen' } }]),
    photos: [{ id: 'p1', of: 'b', caption: 'The breaker', hash }],
  }
  const paper = strToU8(
    JSON.stringify({ id: 'report-inspector', title: 'T', blocks: [{ kind: 'text', text: 'x' }] }),
  )
  const pdf = strToU8('%PDF-1.3 and so on')
  const seals = { hash: sha256(paper), fileHash: sha256(pdf), number: 1, voice: 'inspector' }
  const signed = { ...house, signings: [{ id: 'signing-1-inspector', ...seals }] }
  const log = strToU8(JSON.stringify(writeLog(new Ledger(observe(signed))), null, 1))
  bundle = {
    log,
    photos: new Map([[hash, photo]]),
    signed: new Map([
      ['1-inspector.json', paper],
      ['1-inspector.pdf', pdf],
    ]),
  }
  packed = writeBundle(bundle)
})

/** Reads a bundle and the job in it, as an import does. */
async function read(bytes: Uint8Array): Promise<number> {
  const unpacked = readBundle(bytes)
  const { observations } = readJobFile(new TextDecoder().decode(unpacked.log), stamp)
  await checkBundle(unpacked, observations)
  return observations.length
}
/** What is wrong with it; a test that waits for a refusal fails where there is none. */
async function problemsOf(bytes: Uint8Array): Promise<readonly Problem[]> {
  try {
    await read(bytes)
  } catch (error) {
    if (error instanceof UnreadableFile) return error.problems
    throw error
  }
  throw new Error('it was read')
}
/** The archive with some of its files changed, and its list of checksums put right or left as it was. */
function repack(change: (files: Record<string, Uint8Array>) => void, withSums = true): Uint8Array {
  const files = unzipSync(packed)
  change(files)
  if (withSums) {
    const lines = Object.entries(files)
      .filter(([name]) => name !== 'SHA256SUMS')
      .map(([name, bytes]) => `${sha256(bytes)}  ${name}\n`)
    files['SHA256SUMS'] = strToU8(lines.join(''))
  }
  return zipSync(files)
}

describe('a bundle', () => {
  it('comes back as it was, byte for byte, and is the same archive for the same job', () => {
    const back = readBundle(packed)
    expect(Buffer.from(back.log).equals(Buffer.from(bundle.log))).toBe(true)
    expect([...back.photos.keys()]).toEqual([...bundle.photos.keys()])
    expect([...back.signed.keys()]).toEqual([...bundle.signed.keys()])
    expect(Buffer.from(writeBundle(back)).equals(Buffer.from(packed))).toBe(true)
  })
  it('is read whole', async () => {
    const { observations } = JSON.parse(new TextDecoder().decode(bundle.log)) as Node
    expect(await read(packed)).toBe((observations as unknown[]).length)
  })

  const name = (problems: readonly Problem[]) => problems[0]?.path
  it('a name that leads out of the archive is refused, with the name', async () => {
    for (const bad of [
      '../evil.json',
      '/etc/passwd',
      'photos/../../x.jpg',
      'C:\\x',
      'photos/a.jpg',
    ])
      expect(name(await problemsOf(repack(f => void (f[bad] = strToU8('x')))))).toContain(
        JSON.stringify(bad).slice(1, 6),
      )
  })
  it('a file that says it unpacks to more than it may is refused before it is unpacked', async () => {
    const bomb = zipSync({ [BUNDLE_LOG]: [new Uint8Array(21 * 1024 * 1024), { level: 9 }] })
    expect(bomb.length).toBeLessThan(200_000)
    const began = Date.now()
    expect(name(await problemsOf(bomb))).toBe(BUNDLE_LOG)
    expect(Date.now() - began).toBeLessThan(2000)
  })
  it('a file that is shorter on paper than in truth does not grow past what it said', async () => {
    const small = Buffer.from(repack(f => void (f[BUNDLE_LOG] = new Uint8Array(4_000_000))))
    // The uncompressed size in the central directory, made small.
    const at = small.indexOf(Buffer.from([0x50, 0x4b, 0x01, 0x02]))
    const own = small.indexOf(Buffer.from(BUNDLE_LOG), at) - 46
    small.writeUInt32LE(100, own + 24)
    expect(await problemsOf(small)).toHaveLength(1)
  })
  it('a cut archive, no archive and an empty one are refused', async () => {
    for (const bytes of [
      packed.slice(0, packed.length / 2),
      strToU8('PK nothing'),
      new Uint8Array(0),
    ])
      expect(name(await problemsOf(bytes))).toBe('(file)')
    expect(name(await problemsOf(zipSync({})))).toBe('SHA256SUMS')
  })
  it('wrong, missing and superfluous checksums are refused by the name of the file', async () => {
    const wrong = repack(f => void (f[BUNDLE_LOG] = strToU8('{}')), false)
    expect(name(await problemsOf(wrong))).toBe(BUNDLE_LOG)
    const none = repack(f => void (f['SHA256SUMS'] = strToU8('')), false)
    expect(name(await problemsOf(none))).toBe(BUNDLE_LOG)
    const more = repack(f => {
      f['SHA256SUMS'] = strToU8(
        `${new TextDecoder().decode(f['SHA256SUMS'])}${'0'.repeat(64)}  signed/9-rental.pdf\n`,
      )
    }, false)
    expect(name(await problemsOf(more))).toBe('signed/9-rental.pdf')
    const line = repack(f => void (f['SHA256SUMS'] = strToU8('nonsense\n')), false)
    expect(name(await problemsOf(line))).toBe('SHA256SUMS, line 1')
  })
  it('a photograph under another name, of another job, or that is none is refused', async () => {
    const [own = ''] = bundle.photos.keys()
    const named = repack(f => {
      f[`photos/${'a'.repeat(64)}.jpg`] = f[`photos/${own}.jpg`] as Uint8Array
    })
    expect(name(await problemsOf(named))).toBe(`photos/${'a'.repeat(64)}.jpg`)
    const other = new Uint8Array(await picture(90))
    const foreign = repack(f => void (f[`photos/${sha256(other)}.jpg`] = other))
    expect(name(await problemsOf(foreign))).toBe(`photos/${sha256(other)}.jpg`)
    expect(foreignPhotos(bundle, new Set())).toHaveLength(1)
    const text = strToU8('this is no picture')
    const log = new TextDecoder().decode(bundle.log).replace(own, sha256(text))
    const fake = repack(f => {
      f[BUNDLE_LOG] = strToU8(log)
      delete f[`photos/${own}.jpg`]
      f[`photos/${sha256(text)}.jpg`] = text
    })
    expect((await problemsOf(fake))[0]).toMatchObject({ expected: 'a JPEG picture' })
  })
  it('what the camera wrote into a picture is refused', async () => {
    const told = new Uint8Array(
      await sharp(await picture(10))
        .withExif({ IFD0: { Artist: 'somebody' } })
        .jpeg()
        .toBuffer(),
    )
    const [own = ''] = bundle.photos.keys()
    const log = new TextDecoder().decode(bundle.log).replace(own, sha256(told))
    const bytes = repack(f => {
      f[BUNDLE_LOG] = strToU8(log)
      delete f[`photos/${own}.jpg`]
      f[`photos/${sha256(told)}.jpg`] = told
    })
    expect((await problemsOf(bytes))[0]?.found).toContain('camera')
  })
  it('half a signed report, and one that is none, are refused', async () => {
    const half = repack(f => void delete f['signed/1-inspector.pdf'])
    expect(name(await problemsOf(half))).toBe('signed/1-inspector')
    const fake = repack(f => void (f['signed/1-inspector.pdf'] = strToU8('hello')))
    expect(name(await problemsOf(fake))).toBe('signed/1-inspector.pdf')
    const bad = repack(f => void (f['signed/1-inspector.json'] = strToU8('[]')))
    expect(name(await problemsOf(bad))).toBe('signed/1-inspector.json')
  })
  it('a signed report that was changed after it was signed is refused by its seal', async () => {
    const word = strToU8(
      JSON.stringify({ id: 'report-inspector', title: 'T', blocks: [{ kind: 'text', text: 'y' }] }),
    )
    const changed = repack(f => void (f['signed/1-inspector.json'] = word))
    expect((await problemsOf(changed))[0]).toMatchObject({
      path: 'signed/1-inspector.json',
      expected: expect.stringContaining('the seal'),
    })
    const other = repack(f => void (f['signed/1-inspector.pdf'] = strToU8('%PDF-1.3 and more')))
    expect(name(await problemsOf(other))).toBe('signed/1-inspector.pdf')
    const unsigned = repack(f => {
      f['signed/2-rental.json'] = f['signed/1-inspector.json'] as Uint8Array
      f['signed/2-rental.pdf'] = f['signed/1-inspector.pdf'] as Uint8Array
    })
    expect((await problemsOf(unsigned))[0]?.expected).toContain('a signature in the log')
  })
  it('the log says which photographs belong to it', () => {
    const { observations } = readJobFile(new TextDecoder().decode(bundle.log), stamp)
    expect([...hashesIn(observations)]).toEqual([...bundle.photos.keys()])
  })
})

/** The same numbers for the same seed. */
function random(seed: number): (below: number) => number {
  let state = seed >>> 0
  return below => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return Math.floor((state / 2 ** 32) * below)
  }
}

describe('files that were changed at random', () => {
  const TRIALS = Number(process.env.CORVIT_TRIALS ?? 1000)
  const VALUES = [
    null,
    -1,
    1e99,
    '',
    '…'.repeat(300),
    [],
    {},
    true,
    '__proto__',
    [[[[[]]]]],
    'seen',
  ]

  /** One change somewhere in a parsed file: another value, a key gone, a key twice over, a list cut. */
  function bend(raw: unknown, next: (below: number) => number): unknown {
    const whole = structuredClone(raw)
    let at = whole as Record<string, unknown>
    for (let depth = 0; depth < 6; depth++) {
      const keys = Object.keys(at)
      if (keys.length === 0) break
      const key = keys[next(keys.length)] as string
      const value = at[key]
      if (typeof value === 'object' && value !== null && next(4) > 0) {
        at = value as Record<string, unknown>
        continue
      }
      const way = next(4)
      if (way === 0) at[key] = VALUES[next(VALUES.length)]
      else if (way === 1 && !Array.isArray(at)) delete at[key]
      else if (way === 2) at[`${key}x`] = value
      else if (Array.isArray(at)) at.splice(next(at.length), 1 + next(3))
      break
    }
    return whole
  }
  /** Bytes flipped, cut out, doubled or cut off. */
  function chew(bytes: Uint8Array, next: (below: number) => number): Uint8Array {
    const way = next(4)
    const at = next(bytes.length)
    if (way === 0) return bytes.slice(0, at)
    if (way === 1) return Buffer.concat([bytes.slice(0, at), bytes.slice(at + 1 + next(40))])
    if (way === 2) return Buffer.concat([bytes.slice(0, at), bytes.slice(next(at + 1))])
    const flipped = Uint8Array.from(bytes)
    for (let i = 0; i <= next(8); i++) flipped[next(bytes.length)] = next(256)
    return flipped
  }

  it(`${TRIALS} of them: no crash, and every refusal names a place`, async () => {
    const next = random(20_261_127)
    const parsed: unknown = JSON.parse(new TextDecoder().decode(bundle.log))
    const tally = { read: 0, refused: 0 }
    for (let i = 0; i < TRIALS; i++) {
      const way = next(4)
      const bent = () => strToU8(JSON.stringify(bend(parsed, next)))
      const bytes =
        way === 0
          ? bent()
          : way === 1
            ? chew(bundle.log, next)
            : way === 2
              ? chew(packed, next)
              : repack(f => void (f[BUNDLE_LOG] = bent()))
      try {
        if (way >= 2) await read(bytes)
        else readJobFile(new TextDecoder().decode(bytes), stamp)
        tally.read++
      } catch (error) {
        if (!(error instanceof UnreadableFile)) throw new Error(`trial ${i}: ${String(error)}`)
        expect(error.problems.length).toBeGreaterThan(0)
        for (const p of error.problems) {
          expect(p.path).not.toBe('')
          expect(p.expected).not.toBe('')
        }
        tally.refused++
      }
    }
    console.log(`changed files: ${tally.refused} refused, ${tally.read} still readable`)
    expect(tally.refused).toBeGreaterThan(TRIALS / 2)
    expect(tally.read).toBeGreaterThan(0)
  }, 120_000)
})
