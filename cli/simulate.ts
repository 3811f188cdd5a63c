import { writeFileSync } from 'node:fs'
import { Ledger, recorded, roundTrip, seeded, simulateHouse, writeHouse } from '#core'
import { refuse } from './input'

const MOST_FAULTS = 12
const MOST_HOUSES = 100_000

/** The options of a command as they were given; words without a value are true. */
function optionsOf(
  args: readonly string[],
  valued: readonly string[],
  plain: readonly string[],
): ReadonlyMap<string, string> {
  const options = new Map<string, string>()
  for (let i = 0; i < args.length; i++) {
    const arg = args[i] ?? ''
    if (plain.includes(arg)) options.set(arg, '')
    else if (valued.includes(arg)) {
      const value = args[++i]
      if (value === undefined) return refuse(`${arg} wants a value`)
      options.set(arg, value)
    } else return refuse(`unknown option ${arg}; there are ${[...valued, ...plain].join(', ')}`)
  }
  return options
}
function whole(
  options: ReadonlyMap<string, string>,
  name: string,
  or: number,
  least: number,
  most: number,
): number {
  const given = options.get(name)
  if (given === undefined) return or
  const value = Number(given)
  if (!Number.isInteger(value) || value < least || value > most)
    return refuse(
      `${name} takes a whole number from ${least} to ${most}; found ${JSON.stringify(given)}`,
    )
  return value
}

/** `corvit simulate`: a house with faults put in, as instruments and eyes record it. */
export function simulateCommand(args: readonly string[]): void {
  const options = optionsOf(args, ['--seed', '--faults', '--out'], ['--small'])
  const seed = whole(options, '--seed', 1, 0, 2 ** 31 - 1)
  const faults = whole(options, '--faults', 2, 0, MOST_FAULTS)
  const house = simulateHouse(seed, { faults, isSmall: options.has('--small') })
  const { log } = recorded(house, seeded(seed + 7_000_000))
  const ledger = new Ledger(log)
  const job = writeHouse(ledger.house, id => ledger.find(id))
  const told = house.injected.map(({ rule, subject, what, kind }) => ({
    rule,
    subject,
    what,
    kind,
  }))
  const out = options.get('--out')
  if (out === undefined) {
    console.log(JSON.stringify({ ...job, simulated: { seed, faults: told } }, null, 2))
    return
  }
  const apart = `${out.replace(/\.json$/, '')}-faults.json`
  try {
    writeFileSync(out, JSON.stringify(job, null, 2))
    writeFileSync(apart, JSON.stringify({ seed, faults: told }, null, 2))
  } catch (error) {
    return refuse(`${out}: ${(error as Error).message}`)
  }
  console.log(JSON.stringify({ corvit: 1, out, faults: apart, injected: told.length }, null, 2))
}

/** `corvit roundtrip`: houses with faults put in, inspected, and counted. Returns whether all came back. */
export function roundTripCommand(args: readonly string[]): boolean {
  const options = optionsOf(args, ['--houses', '--seed'], [])
  const houses = whole(options, '--houses', 20, 1, MOST_HOUSES)
  const seed = whole(options, '--seed', 1, 0, 1_000_000)
  const isWatched = process.stderr.isTTY
  const trip = roundTrip(houses, seed, done => {
    if (isWatched) process.stderr.write(`\r${done} of ${houses} houses`)
    return true
  })
  if (isWatched) process.stderr.write('\n')
  console.log(JSON.stringify({ corvit: 1, seed, ...trip }, null, 2))
  return trip.missed.length === 0 && trip.invented.length === 0 && trip.stuck.length === 0
}
