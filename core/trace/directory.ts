import { valueOf, type Subject } from '../model/house'
import type { Site } from '../derive/site'

export type EntryState = 'agrees' | 'contradicted' | 'no entry' | 'nothing found on it' | 'spare'
/** One line of the directory beside what was found. */
export interface DirectoryEntry {
  readonly breaker: string
  readonly space: string
  readonly written: string | undefined
  readonly found: string
  readonly state: EntryState
}
export interface Reconciled {
  readonly entries: readonly DirectoryEntry[]
  /** Outlets and appliances no breaker was found for. */ readonly orphans: readonly string[]
  /** Two breakers with the same entry. */ readonly doubles: readonly string[]
}

const STOP = new Set([
  'and',
  'the',
  'of',
  'for',
  'left',
  'right',
  'front',
  'back',
  'east',
  'west',
  'north',
  'south',
  'outlet',
  'outlets',
  'receptacle',
  'receptacles',
  'plug',
  'plugs',
  'circuit',
  'room',
])
const words = (text: string): Set<string> =>
  new Set(
    text
      .toLowerCase()
      .split(/[^a-z0-9]+/)
      .filter(w => w.length > 2 && !STOP.has(w))
      .map(w => w.replace(/s$/, '')),
  )

/** Compares the directory of a panel with what was traced, and writes the new card. */
export function reconcile(site: Site, panel: Subject<'enclosure'>): Reconciled {
  const entries = [...site.children(panel, 'breaker')]
    .sort((a, b) => (valueOf(a, 'space') ?? 99) - (valueOf(b, 'space') ?? 99))
    .map((breaker): DirectoryEntry => {
      const circuits = site.circuitsOf(breaker)
      const outlets = circuits.flatMap(c => [...site.outletsOf(c)])
      const written = valueOf(breaker, 'label') ?? valueOf(circuits[0], 'label')
      const fed = site
        .feedersFrom(breaker)
        .flatMap(f => site.enclosuresOn(f))
        .map(e => valueOf(e, 'name') ?? 'panel')
      const found = fed.length > 0 ? fed.map(f => `feeds ${f}`).join(', ') : cardOf(site, outlets)
      const space = `${valueOf(breaker, 'space') ?? '?'}${valueOf(breaker, 'half') ?? ''}`
      const base = { breaker: breaker.id, space, written, found }
      if (valueOf(breaker, 'role') === 'spare' && found === '') return { ...base, state: 'spare' }
      if (written === undefined) return { ...base, state: 'no entry' }
      if (found === '') return { ...base, state: 'nothing found on it' }
      const said = words(written)
      const seen = words(
        [
          found,
          ...outlets.map(
            p => `${valueOf(p, 'name') ?? ''} ${valueOf(site.roomOf(p), 'name') ?? ''}`,
          ),
        ].join(' '),
      )
      return {
        ...base,
        state: [...said].some(w => seen.has(w)) || said.size === 0 ? 'agrees' : 'contradicted',
      }
    })
  const count = new Map<string, number>()
  for (const e of entries)
    if (e.written) count.set(e.written.toLowerCase(), (count.get(e.written.toLowerCase()) ?? 0) + 1)
  return {
    entries,
    doubles: [...count].filter(([, n]) => n > 1).map(([text]) => text),
    orphans: site.all.outlet
      .filter(p => {
        const c = site.get(valueOf(p, 'circuit'), 'circuit')
        return !c || !site.get(valueOf(c, 'fedBy'), 'breaker')
      })
      .map(p => valueOf(p, 'name') ?? p.id),
  }
}

/** What a circuit feeds, in words for the card: by room, receptacles counted, other things named. */
function cardOf(site: Site, outlets: readonly Subject<'outlet'>[]): string {
  const rooms = new Map<string, { receptacles: number; lights: number; others: string[] }>()
  for (const p of outlets) {
    const room = valueOf(site.roomOf(p), 'name') ?? ''
    const entry = rooms.get(room) ?? { receptacles: 0, lights: 0, others: [] }
    rooms.set(room, entry)
    const type = valueOf(p, 'type')
    if (type === 'receptacle') entry.receptacles++
    else if (type === 'luminaire') entry.lights++
    else entry.others.push(valueOf(p, 'name') ?? type ?? 'outlet')
  }
  return [...rooms]
    .map(([room, e]) =>
      [
        room,
        [
          e.receptacles && `${e.receptacles} receptacle${e.receptacles > 1 ? 's' : ''}`,
          e.lights && (e.lights > 1 ? `${e.lights} lights` : 'light'),
          ...e.others,
        ]
          .filter(Boolean)
          .join(', '),
      ]
        .filter(Boolean)
        .join(': '),
    )
    .join('; ')
}
