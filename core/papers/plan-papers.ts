import { isKind, valueOf, type House, type Subject } from '../model/house'
import { Site } from '../derive/site'
import { labelOf } from '../texts/labels'
import { acceptanceTests, type Pass } from '../plan/acceptance'
import { pickList } from '../plan/materials'
import { money } from '../plan/plain'
import { namesAfter, worksOf, type PlannedWork } from '../plan/works'
import type { Block, Label, Paper } from './paper'

export const PLAN_PAPERS = [
  'scope-of-work',
  'pick-list',
  'labels',
  'directory',
  'lockout',
  'permit-note',
  'acceptance',
] as const
export type PlanPaperId = (typeof PLAN_PAPERS)[number]
export const PLAN_PAPER_TITLES: Readonly<Record<PlanPaperId, string>> = {
  'scope-of-work': 'Scope of work',
  'pick-list': 'Pick list and truck list',
  labels: 'Marking sheet and labels',
  directory: 'Panel directory',
  lockout: 'Lockout tags',
  'permit-note': 'Permit note',
  acceptance: 'Acceptance tests',
}

const CAUTION =
  'Power off, locked and tagged, and absence of voltage proved with a tester proved before and after. ' +
  'The line side of a main stays live with the main off. Local code and licensed practice decide.'
const say = (text: string, tone?: 'soft' | 'strong'): Block =>
  tone ? { kind: 'text', text, tone } : { kind: 'text', text }
const h = (text: string, level: 1 | 2 = 1): Block => ({ kind: 'heading', level, text })

/** A paper of the accepted plan. An accepted plan is what the record holds as tasks. */
export function planPaper(house: House, id: PlanPaperId): Paper {
  const site = new Site(house)
  const works = worksOf(house).filter(w => w.state === 'planned')
  const blocks = works.length === 0 && id !== 'directory' ? [NOTHING] : WRITERS[id](site, works)
  const name = valueOf(site.premises, 'name') ?? 'Property'
  const place = [name, valueOf(site.premises, 'street')].filter(Boolean).join(', ')
  return {
    id,
    title: PLAN_PAPER_TITLES[id],
    subtitle: [place, valueOf(site.premises, 'visitedOn')].filter(Boolean).join(' · '),
    running: `${place} · ${PLAN_PAPER_TITLES[id]}`,
    blocks,
  }
}
const NOTHING = say('No plan has been accepted, or all of its work is done.')

const WRITERS: Readonly<
  Record<PlanPaperId, (site: Site, works: readonly PlannedWork[]) => readonly Block[]>
> = {
  'scope-of-work': scopeOfWork,
  'pick-list': pickPaper,
  labels: labelPaper,
  directory: directoryPaper,
  lockout: lockoutPaper,
  'permit-note': permitPaper,
  acceptance: acceptancePaper,
}

/** Works by stage, in order. */
function staged(
  works: readonly PlannedWork[],
): readonly (readonly [string, readonly PlannedWork[]])[] {
  const stages = new Map<string, PlannedWork[]>()
  for (const w of works) {
    const list = stages.get(w.stage)
    if (list) list.push(w)
    else stages.set(w.stage, [w])
  }
  return [...stages]
}

/** Every place a work puts a hand to: the fault may be found elsewhere. */
function touched(work: PlannedWork): readonly string[] {
  const named = namesAfter(work.before, work.changes)
  const places = new Set(work.changes.flatMap(c => (c.act === 'note' ? named(c.subject) : [])))
  return [...places].sort((a, b) => a.localeCompare(b, 'en', { numeric: true }))
}

function scopeOfWork(_site: Site, works: readonly PlannedWork[]): readonly Block[] {
  const total = works.reduce((sum, w) => sum + w.cents, 0)
  const blocks: Block[] = [
    say(
      `${works.length} works. Prices are those of the price book the plan was made with: ` +
        `${money(total)} for these works, without call-out and permit.`,
    ),
  ]
  const often = oftenSaid(works)
  if (often.length > 0) blocks.push(h('For every work below'), { kind: 'list', items: [...often] })
  for (const [stage, list] of staged(works)) {
    blocks.push(h(stage))
    for (const w of list) {
      blocks.push(h(`${w.label}: ${w.remedy.title}`, 2))
      blocks.push(
        say(`${money(w.cents)}${w.remedy.needsPermit ? ' · needs a permit' : ''}`, 'soft'),
      )
      const places = touched(w)
      if (places.length > 1 || (places.length === 1 && places[0] !== w.label))
        blocks.push(say(`Work at: ${places.join(', ')}`))
      if (w.remedy.steps.length > 0) blocks.push({ kind: 'list', items: w.remedy.steps })
      for (const duty of w.remedy.duties) blocks.push(say(`Brings along: ${duty}`))
      for (const caution of w.remedy.cautions.filter(c => !often.includes(c)))
        blocks.push(say(`Caution: ${caution}`, 'strong'))
      if (w.remedy.lacks) blocks.push(say(`Does not give: ${w.remedy.lacks}`))
    }
  }
  blocks.push(h('Before any of it'), say(CAUTION))
  return blocks
}

/** Cautions of so many works that they are said once, ahead of all. */
const OFTEN = 3
function oftenSaid(works: readonly PlannedWork[]): readonly string[] {
  const count = new Map<string, number>()
  for (const w of works) for (const c of w.remedy.cautions) count.set(c, (count.get(c) ?? 0) + 1)
  return [...count].flatMap(([caution, n]) => (n >= OFTEN ? caution : []))
}

function pickPaper(_site: Site, works: readonly PlannedWork[]): readonly Block[] {
  const { parts, tools, unlisted } = pickList(works)
  const blocks: Block[] = [
    h('Parts'),
    {
      kind: 'table',
      head: ['Part', 'Quantity', ''],
      rows: parts.map(p => [p.what, String(p.count), p.unit]),
      widths: [7, 2, 1],
      figures: [1],
    },
    say('Feet of a run nobody measured are counted as 40. Measure before you cut.', 'soft'),
    h('On the truck'),
    { kind: 'checks', items: tools },
  ]
  if (unlisted.length > 0)
    blocks.push(h('Look at the steps for these'), {
      kind: 'list',
      items: unlisted.map(w => `${w.label}: ${w.remedy.title}`),
    })
  return blocks
}

/** Every label of the plan with the place it goes to. 406.4(D)(2). */
export function labelsOf(works: readonly PlannedWork[]): readonly Label[] {
  const texts = new Map<string, { where: string; said: Set<string> }>()
  for (const w of works) {
    const named = namesAfter(w.before, w.changes)
    for (const c of w.changes) {
      if (c.act !== 'note' || c.value !== true) continue
      const text = LABEL_TEXTS[c.field]
      if (text === undefined) continue
      const known = texts.get(c.subject)
      if (known) known.said.add(text)
      else texts.set(c.subject, { where: named(c.subject), said: new Set([text]) })
    }
  }
  // The pair reads in this order on the outlet.
  return [...texts.values()].flatMap(({ where, said }) =>
    [...said].sort().map(text => ({ text, where })),
  )
}
/** The words 406.4(D)(2) asks for, by the fact that says they are there. */
const LABEL_TEXTS: Readonly<Record<string, string>> = {
  isMarkedNoGround: 'No Equipment Ground',
  isMarkedGfci: 'GFCI Protected',
}

function labelPaper(_site: Site, works: readonly PlannedWork[]): readonly Block[] {
  const labels = labelsOf(works)
  const blocks: Block[] = []
  if (labels.length > 0) {
    const byPlace = new Map<string, string[]>()
    for (const l of labels) byPlace.set(l.where, [...(byPlace.get(l.where) ?? []), l.text])
    blocks.push(h('Which outlet wears what'), {
      kind: 'table',
      head: ['Outlet', 'Marking'],
      rows: [...byPlace].map(([where, texts]) => [where, texts.join(' and ')]),
      widths: [1, 1],
    })
  }
  const others = works.filter(w => w.remedy.markings.length > 0)
  if (others.length > 0)
    blocks.push(h('Markings that come with the work'), {
      kind: 'list',
      items: others.map(w => `${w.label}: ${w.remedy.markings.join('; ')}`),
    })
  if (labels.length > 0)
    blocks.push({ kind: 'break' }, h('Labels, to be cut'), { kind: 'labels', items: labels })
  return blocks.length > 0 ? blocks : [say('No work of this plan asks for a marking.')]
}

function directoryPaper(site: Site): readonly Block[] {
  const blocks: Block[] = []
  for (const panel of site.all.enclosure) {
    const breakers = site.children(panel, 'breaker')
    if (breakers.length === 0) continue
    if (blocks.length > 0) blocks.push({ kind: 'break' })
    blocks.push(h(labelOf(site, panel)), {
      kind: 'table',
      head: ['Space', 'Amperes', 'Feeds', 'Protection'],
      rows: breakers.map(b => [
        spacesOf(b),
        String(valueOf(b, 'ratingAmps') ?? 'not read'),
        feedsOf(site, b),
        protectionWords(valueOf(b, 'protection')),
      ]),
      widths: [2, 2, 8, 3],
      figures: [1],
    })
  }
  blocks.push(
    say(
      'Made from what was traced; what is written “not traced” must be traced before it is hung. 408.4.',
    ),
  )
  return blocks
}
const spacesOf = (b: Subject<'breaker'>): string => {
  const space = valueOf(b, 'space')
  if (space === undefined) return '–'
  return (valueOf(b, 'poles') ?? 1) > 1 ? `${space}, ${space + 2}` : String(space)
}
const protectionWords = (p: string | undefined): string =>
  p === undefined || p === 'none' || p === 'standard' ? '' : p
function feedsOf(site: Site, breaker: Subject<'breaker'>): string {
  const circuits = site.circuitsOf(breaker)
  const feeders = site.feedersFrom(breaker)
  const names = [...circuits.map(c => circuitWords(site, c)), ...feeders.map(f => labelOf(site, f))]
  return names.join('; ') || 'not traced'
}
/** What a circuit feeds, by rooms: no name that only made sense to somebody who moved away. 408.4(A). */
function circuitWords(site: Site, circuit: Subject<'circuit'>): string {
  const rooms = [
    ...new Set(site.outletsOf(circuit).flatMap(o => valueOf(site.roomOf(o), 'name') ?? [])),
  ]
  const label = valueOf(circuit, 'label')
  return (
    [label, rooms.length > 0 ? `(${rooms.join(', ')})` : ''].filter(Boolean).join(' ') ||
    'not traced'
  )
}

function lockoutPaper(site: Site, works: readonly PlannedWork[]): readonly Block[] {
  const stops = new Map<string, { breaker: Subject<'breaker'>; works: PlannedWork[] }>()
  const others: PlannedWork[] = []
  for (const w of works) {
    const breaker = breakerOf(site, w.subject)
    if (!breaker) {
      others.push(w)
      continue
    }
    const stop = stops.get(breaker.id) ?? { breaker, works: [] }
    stop.works.push(w)
    stops.set(breaker.id, stop)
  }
  const blocks: Block[] = [say(CAUTION, 'strong')]
  for (const { breaker, works: mine } of stops.values()) {
    blocks.push(h(`Danger. Do not operate: ${labelOf(site, breaker)}`))
    blocks.push(say(`Dead for: ${mine.map(w => `${w.label} (${w.remedy.title})`).join('; ')}`))
    const live = stillLive(site, breaker)
    if (live.length > 0) blocks.push(say('Stays live:', 'strong'), { kind: 'list', items: live })
    blocks.push(
      { kind: 'checks', items: ['Locked and tagged', 'Proved dead at the place of work'] },
      say('By ______________   Day ______________   Call ______________'),
    )
  }
  if (others.length > 0)
    blocks.push(h('At panels and the service: which disconnect is opened is decided on site'), {
      kind: 'list',
      items: others.map(w => `${w.label}: ${w.remedy.title}`),
    })
  return blocks
}
function breakerOf(site: Site, id: string): Subject<'breaker'> | undefined {
  const thing = site.house.subjects.get(id)
  if (isKind(thing, 'breaker')) return thing
  const circuit = isKind(thing, 'outlet')
    ? site.get(valueOf(thing, 'circuit'), 'circuit')
    : isKind(thing, 'segment')
      ? site.get(thing.parent ?? undefined, 'circuit')
      : isKind(thing, 'circuit')
        ? thing
        : undefined
  return site.get(circuit && valueOf(circuit, 'fedBy'), 'breaker')
}
/** What the handle of one breaker leaves live around the work. */
function stillLive(site: Site, breaker: Subject<'breaker'>): string[] {
  const live = ['The bus and the line side in the panel']
  for (const circuit of site.circuitsOf(breaker))
    for (const other of valueOf(circuit, 'sharesNeutralWith') ?? []) {
      const thing = site.get(other, 'circuit')
      if (thing) live.push(`${labelOf(site, thing)}: shares the neutral, and is another handle`)
    }
  return live
}

function permitPaper(site: Site, works: readonly PlannedWork[]): readonly Block[] {
  const needing = works.filter(w => w.remedy.needsPermit)
  if (needing.length === 0)
    return [
      say(
        'No work of this plan needs a permit by the usual rule. Ask the local office all the same.',
      ),
    ]
  return [
    say('Works for which a permit is usual. Who may do them is decided by local law.'),
    {
      kind: 'table',
      head: ['Place', 'Work', 'For'],
      rows: needing.map(w => [w.label, w.remedy.title, w.rule.replaceAll('-', ' ')]),
      widths: [4, 4, 4],
    },
    say(`Code edition in force: ${site.isEditionOpen ? 'not known' : site.edition}`),
  ]
}

function acceptancePaper(site: Site, works: readonly PlannedWork[]): readonly Block[] {
  const blocks: Block[] = [
    say('After the work, before the cover goes on. What is not tested stays open in the record.'),
  ]
  for (const [stage, list] of staged(works)) {
    const rows = list.flatMap(w => [
      ...testsOf(w).map(t => [
        t.name,
        t.look + (t.instrument ? ` (${t.instrument})` : ''),
        passWords(t.passes),
        '',
      ]),
      ...w.remedy.tests.map(text => [w.label, text, 'as the test says', '']),
    ])
    if (rows.length === 0) continue
    blocks.push(h(stage), {
      kind: 'table',
      head: ['Place', 'Test', 'Passes at', 'Reading'],
      rows,
      widths: [4, 6, 3, 3],
    })
  }
  return blocks
}
function testsOf(work: PlannedWork) {
  const named = namesAfter(work.before, work.changes)
  return acceptanceTests(work.before, work.changes).map(t => ({ ...t, name: named(t.subject) }))
}
export function passWords(passes: Pass): string {
  if (passes.kind === 'most') return `${passes.limit} ${passes.unit} or less`.replace('  ', ' ')
  if (passes.kind === 'between') return `${passes.low} to ${passes.high} ${passes.unit}`
  if (passes.kind === 'read') return `planned ${passes.planned} ${passes.unit}`.trim()
  if (typeof passes.value === 'boolean') return passes.value ? 'yes' : 'no'
  return String(passes.value)
}
