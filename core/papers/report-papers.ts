import { assess, type Assessment, type SpokenResult } from '../assess/assess'
import { Site } from '../derive/site'
import { SEVERITIES, type Severity } from '../engine/severity'
import { VOICES } from '../model/fields'
import { valueOf, type House } from '../model/house'
import { money } from '../plan/plain'
import { tasksInOrder } from '../plan/works'
import { ruleById } from '../rules'
import { CAUTIONS, limitationsOf, WHO } from '../texts/report'
import { labelOf } from '../texts/labels'
import { groupAlike, type FindingGroup } from '../views/groups'
import { placeOf } from '../views/walk'
import { recordedScope } from '../visit/recorded'
import { visitOf, type Visit } from '../visit/visit'
import { bondMapSvg } from '../drawings/bond-map'
import { boxFillSvg } from '../drawings/box-fill'
import { circuitTreeSvgs } from '../drawings/circuit-tree'
import { panelFaceSvg } from '../drawings/panel-face'
import { tellFindings, type LeftOut, type Told as ToldFinding } from './edits'
import { asSentence, withinSentence, type Block, type FindingMark, type Paper } from './paper'
import { returnVisitsOf, sheetOf } from './rechecks'
import { shortForm } from './short-forms'

export const REPORT_VOICES = VOICES
export type ReportVoice = (typeof REPORT_VOICES)[number]
export const REPORT_TITLES: Readonly<Record<ReportVoice, string>> = {
  inspector: 'Inspection of the wiring',
  electrician: 'Findings and remedies',
  corrections: 'Correction notice',
  household: 'Your wiring in plain words',
  insurance: 'Short form for the insurer',
  rental: 'Short form for the rental',
}

/** What every voice tells from. */
interface Told {
  readonly site: Site
  readonly assessment: Assessment
  /** Faults, and what leans to one, as they are told. */
  readonly findings: readonly ToldFinding[]
  readonly leftOut: readonly LeftOut[]
  readonly groups: readonly FindingGroup[]
  readonly allowed: readonly FindingGroup[]
  readonly visit: Visit
}

/** One record, told to one reader. */
export function reportPaper(
  house: House,
  voice: ReportVoice,
  assessment: Assessment = assess(house),
): Paper {
  const site = new Site(house)
  const { told: findings, leftOut } = tellFindings(
    house,
    assessment.results.filter(r => r.outcome === 'fault' || r.leans !== undefined),
  )
  const bySeverity = SEVERITIES.flatMap(s => groupAlike(findings.filter(f => f.severity === s)))
  const allowed = groupAlike(assessment.results.filter(r => r.outcome === 'allowed'))
  const visit = visitOf(site, assessment.results, recordedScope(site))
  const told = { site, assessment, findings, leftOut, groups: bySeverity, allowed, visit }
  const { premises } = site
  const name = valueOf(premises, 'name') ?? 'Property'
  const place = [name, valueOf(premises, 'street')].filter(Boolean).join(', ')
  const who = valueOf(premises, 'assessor')
  const subtitle = [place, valueOf(premises, 'visitedOn'), who && `by ${who}`]
  return {
    id: `report-${voice}`,
    title: REPORT_TITLES[voice],
    subtitle: subtitle.filter(Boolean).join(' · '),
    running: `${place} · ${REPORT_TITLES[voice]}`,
    blocks: WRITERS[voice](told),
  }
}
const short = (voice: 'insurance' | 'rental') => (told: Told) => [
  ...shortForm(told.site, told.assessment, voice),
  ...leftOutBlocks(told),
  ...closing(),
]

const WRITERS: Readonly<Record<ReportVoice, (told: Told) => readonly Block[]>> = {
  inspector: inspectorPaper,
  electrician: electricianPaper,
  corrections: correctionsPaper,
  household: householdPaper,
  insurance: short('insurance'),
  rental: short('rental'),
}

const markOf = ({ first, all }: FindingGroup): FindingMark => ({
  rule: first.rule,
  subjects: all.map(f => f.subject.id),
})
const h = (text: string, level: 1 | 2 = 1): Block => ({ kind: 'heading', level, text })
const say = (text: string, tone?: 'soft' | 'strong'): Block =>
  tone ? { kind: 'text', text, tone } : { kind: 'text', text }
const list = (items: readonly string[]): Block => ({ kind: 'list', items })
const count = (n: number, one: string, many = `${one}s`) => `${n} ${n === 1 ? one : many}`

const SEVERITY_WORDS: Readonly<Record<Severity, string>> = {
  'make safe now': 'Make safe now',
  repair: 'Repair',
  upgrade: 'Upgrade at the next work',
  note: 'Note',
}
/** Places of a group, the first few by name. */
function placesOf({ all }: FindingGroup, most = 6): string {
  const names = all.map(f => f.subject.label)
  return names.length <= most
    ? names.join(', ')
    : `${names.slice(0, most).join(', ')} and ${names.length - most} more`
}
/** The lean of a finding that is no proven fault, in a sentence. */
function leanWords({ leans }: SpokenResult): string {
  if (!leans) return ''
  const unless = leans.unless.length > 0 ? ` unless ${leans.unless.join(', or ')}` : ''
  return `A fault${unless}. Settled by: ${leans.ask.label}: ${leans.ask.look}.`
}

/** What was found, in the composed sentence or in the person's own words; a weight set by hand says so. */
function foundWords(f: ToldFinding): string {
  const grade = f.grade === 'told' || f.grade === 'assumed' ? ` This was ${f.grade}, not seen.` : ''
  const byHand = f.byHand
    ? ` Weighed by hand (computed: ${f.byHand.computed}): ${f.byHand.reason}.`
    : ''
  const words = f.own === undefined ? asSentence(f.why) : `${f.own.replace(/[.\s]+$/, '')}.`
  return `${words}${grade}${byHand}`
}

/** Photographs of things, each once. */
function picturesOf(site: Site, things: ReadonlySet<string>): Block[] {
  return site.all.photo.flatMap(photo => {
    const of = valueOf(photo, 'of')
    const hash = valueOf(photo, 'hash')
    if (of === undefined || hash === undefined || !things.has(of)) return []
    return {
      kind: 'picture' as const,
      hash,
      caption: [valueOf(photo, 'caption') ?? labelOf(site, photo), valueOf(photo, 'shows')]
        .filter(Boolean)
        .join(' · '),
      marks: valueOf(photo, 'marks') ?? '',
    }
  })
}

function leftOutBlocks({ leftOut }: Pick<Told, 'leftOut'>): Block[] {
  if (leftOut.length === 0) return []
  return [
    h('Left out by the person who signs'),
    say('Found, kept on record, and not told above, for the reason given with each.'),
    list(
      leftOut.map(
        ({ finding, reason }) => `${finding.title}: ${finding.subject.label}. Reason: ${reason}`,
      ),
    ),
  ]
}

function summaryOf({ site, assessment, groups, allowed }: Told): Block[] {
  const { premises } = site
  const built = valueOf(premises, 'yearBuilt')
  const rows = SEVERITIES.map(s => [
    SEVERITY_WORDS[s],
    String(groups.filter(g => g.first.severity === s && !g.first.leans).length),
    String(assessment.totals.severity[s]),
  ])
  const urgent = groups.filter(g => g.first.severity === 'make safe now')
  const facts = [
    valueOf(premises, 'client') && `For ${valueOf(premises, 'client')}`,
    valueOf(premises, 'purpose') && `purpose: ${valueOf(premises, 'purpose')}`,
    built !== undefined && `built ${Array.isArray(built) ? built.join(' to ') : String(built)}`,
    `code edition in force: ${site.isEditionOpen ? 'not known' : site.edition}`,
  ]
  return [
    h('Summary'),
    say(`${facts.filter(Boolean).join('; ')}.`),
    {
      kind: 'table',
      head: ['How urgent', 'Kinds of fault', 'Places'],
      rows,
      widths: [6, 2, 2],
      figures: [1, 2],
    },
    ...(urgent.length > 0
      ? [
          say('To be made safe now:', 'strong'),
          list(urgent.slice(0, 12).map(g => `${g.first.title}: ${placesOf(g, 2)}.`)),
        ]
      : [say('Nothing that has to be made safe today was found in what was seen.')]),
    say(
      (allowed.length > 0
        ? `${count(allowed.length, 'kind of thing', 'kinds of things')} below today’s rule may remain. `
        : '') +
        `${count(assessment.totals.clear, 'check')} passed; ${count(assessment.totals.undecided, 'check')} ` +
        'could not be decided, and none of those is counted as fine.',
    ),
  ]
}

/** Findings place by place, in the order of the walk: what was seen, what it can lead to, who should look at it. */
function inspectorPaper(told: Told): readonly Block[] {
  const { site, findings } = told
  const showsSections = valueOf(site.premises, 'citeSections') === true
  const blocks = [...summaryOf(told), ...visitBlocks(told)]
  const pictured = new Set<string>()
  const byPlace = new Map<string, ToldFinding[]>()
  for (const f of findings) {
    const thing = site.house.subjects.get(f.subject.id)
    const place = thing ? labelOf(site, placeOf(site, thing, 'rooms')) : f.subject.label
    byPlace.set(place, [...(byPlace.get(place) ?? []), f])
  }
  const worst = (fs: readonly SpokenResult[]) =>
    Math.min(...fs.map(f => SEVERITIES.indexOf(f.severity ?? 'note')))
  blocks.push(h('Findings, place by place'))
  if (findings.length === 0) blocks.push(say('None, in what was seen.'))
  for (const [place, all] of [...byPlace].sort((a, b) => worst(a[1]) - worst(b[1]))) {
    blocks.push(h(place, 2))
    const groups = SEVERITIES.flatMap(s => groupAlike(all.filter(f => f.severity === s)))
    for (const g of groups) {
      const { first: f } = g
      const severity = f.severity ?? 'note'
      const title = `${f.title}: ${placesOf(g)}`
      blocks.push({ kind: 'text', text: title, tone: 'strong', finding: markOf(g) })
      const leads = ruleById(f.rule)?.consequence ?? ''
      const section = showsSections ? ` (${f.sections.join(', ')})` : ''
      const text = `${foundWords(f)}${section} ${leads} ${leanWords(f)}`
      blocks.push(say(text.replace(/\s+/g, ' ').trim()))
      blocks.push(say(`${SEVERITY_WORDS[severity]}. ${WHO[severity]}.`, 'soft'))
      // A number is believed when it is seen: the box beside what it would have to hold.
      if (f.rule === 'box-fill' && f.compare)
        blocks.push({
          kind: 'drawing',
          svg: boxFillSvg(f.compare, f.working),
          caption: `${f.subject.label}: what is in the box`,
          share: 0.55,
        })
      const things = new Set(g.all.map(a => a.subject.id).filter(id => !pictured.has(id)))
      for (const id of things) pictured.add(id)
      blocks.push(...picturesOf(site, things))
    }
  }
  return [
    ...blocks,
    ...leftOutBlocks(told),
    ...allowedBlocks(told),
    ...limitationBlocks(told),
    ...drawingBlocks(told),
    ...glossary(told),
    ...closing(),
  ]
}

/** The house as it was drawn on the visit: each panel, what it feeds, and how it is bonded. */
function drawingBlocks({ site, assessment }: Told): Block[] {
  const panels = site.all.enclosure.filter(e => site.children(e, 'breaker').length > 0)
  const drawing = (svg: string, caption: string, share = 1): Block => ({
    kind: 'drawing',
    svg,
    caption,
    share,
  })
  if (panels.length === 0) return []
  return [
    // A drawing may fill a page: its chapter begins on one of its own.
    { kind: 'break' },
    h('Drawings'),
    ...panels.map(p =>
      drawing(panelFaceSvg(site, p, assessment.results), `${labelOf(site, p)}, as found`, 0.9),
    ),
    drawing(bondMapSvg(site, assessment.results), 'How it is supplied, grounded and bonded'),
    ...panels.flatMap(p =>
      circuitTreeSvgs(site, p).map(svg =>
        drawing(svg, `What ${labelOf(site, p)} feeds, as far as traced`),
      ),
    ),
  ]
}

function visitBlocks({ visit: { scope, counts } }: Told): Block[] {
  return [
    h('What this visit covered'),
    say(
      `Scope: ${scope.purpose}. ${count(counts.settled, 'check')} settled, ${counts.inScope} within the scope ` +
        `still open, ${counts.outside} outside of it. What lies outside was not judged, and is not taken as fine.`,
    ),
  ]
}

function allowedBlocks({ allowed }: Told): Block[] {
  if (allowed.length === 0) return []
  return [
    h('Allowed to remain'),
    say(
      'Below today’s rule, lawful when it was installed. The work that ends it is said with each.',
    ),
    ...[...byTitle(allowed)].flatMap(([title, groups]) => {
      const [only, ...others] = groups.map(g => ({
        places: placesOf(g),
        words: [g.first.why, g.first.standingWhy ?? ''].filter(Boolean).map(asSentence).join(' '),
      }))
      if (!only) return []
      // What differs by year or room is told once, with its places under it.
      return others.length === 0
        ? [say(`${title}: ${only.places}`, 'strong'), say(only.words)]
        : [say(title, 'strong'), list([only, ...others].map(o => `${o.places}. ${o.words}`))]
    }),
  ]
}
function byTitle(groups: readonly FindingGroup[]): Map<string, readonly FindingGroup[]> {
  const titles = new Map<string, readonly FindingGroup[]>()
  for (const g of groups) titles.set(g.first.title, [...(titles.get(g.first.title) ?? []), g])
  return titles
}

/** What nobody has answered within the scope: questions, and places nobody has attested. */
export const openQuestions = (visit: Visit): number =>
  visit.stops.reduce((n, s) => n + s.questions.length + (s.attestation ? 1 : 0), 0)

function limitationBlocks({ site, visit }: Told): Block[] {
  const seen = limitationsOf(site)
  const open = openQuestions(visit)
  return [
    h('Limitations'),
    ...(visit.limitations.length > 0 ? [list(visit.limitations.map(l => l.text))] : []),
    ...(seen.length > 0
      ? [
          say('Tried, and could not be seen:', 'strong'),
          list(seen.map(l => `${l.where}: ${l.fact}. ${l.reason}`)),
        ]
      : []),
    say(
      open > 0
        ? `${count(open, 'question')} within the scope stayed open. ` +
            'A part nobody saw is not a part that is fine.'
        : 'No question within the scope stayed open.',
    ),
  ]
}

/** Words of the trade for a reader who meets them here, where they are met. */
const GLOSSARY: readonly (readonly [RegExp, string])[] = [
  [
    /GFCI/,
    'GFCI: a device that cuts the power within a blink when current strays, as through a person',
  ],
  [/AFCI/, 'AFCI: a device that cuts the power when it hears arcing, which starts fires'],
  [/neutral/i, 'Neutral: the conductor that carries the current back'],
  [/ground/i, 'Ground: the conductor that carries a fault back, so that the breaker opens'],
  [/bond/i, 'Bonding: joining metal parts, so that none of them can be live beside another'],
  [/multiwire/i, 'Multiwire circuit: two circuits that share one neutral'],
  [/panel/i, 'Panel: the box with the breakers; a sub-panel is fed from another one'],
  [/aluminum/i, 'Aluminum wiring: common about 1965 to 1973; joints need parts made for it'],
]
function glossary({ findings, allowed }: Told): Block[] {
  const text = [...findings, ...allowed.map(a => a.first)].map(f => `${f.title} ${f.why}`).join(' ')
  const words = GLOSSARY.flatMap(([pattern, entry]) => (pattern.test(text) ? entry : []))
  return words.length > 0 ? [h('Words used'), list(words)] : []
}
const closing = (): Block[] => [h('Cautions'), list(CAUTIONS)]

/** Fault, section, remedies that can be done here, and what the accepted plan says of each. */
function electricianPaper(told: Told): readonly Block[] {
  const { site, groups } = told
  const tasks = tasksInOrder(site.house)
  const blocks = [...summaryOf(told)]
  for (const severity of SEVERITIES) {
    const mine = groups.filter(g => g.first.severity === severity)
    if (mine.length === 0) continue
    blocks.push(h(SEVERITY_WORDS[severity]))
    for (const g of mine) {
      const { first: f } = g
      const title = `${f.title}: ${placesOf(g)}`
      blocks.push({ kind: 'heading', level: 2, text: title, finding: markOf(g) })
      blocks.push(say(`${foundWords(f)} ${leanWords(f)}`.trim()))
      if (f.working.length > 0) blocks.push(list(f.working))
      blocks.push(say(`Sections: ${f.sections.join(', ')}. ${f.standingWhy ?? ''}`.trim(), 'soft'))
      const planned = tasks.filter(t =>
        g.all.some(a => a.subject.id === valueOf(t, 'of') && a.rule === valueOf(t, 'rule')),
      )
      const sum = planned.reduce((n, t) => n + (valueOf(t, 'cents') ?? 0), 0)
      if (planned.length > 0)
        blocks.push(
          say(
            `In the accepted plan: ${planned.map(t => labelOf(site, t)).join('; ')} · ${money(sum)}`,
          ),
        )
      const offered = f.remedies.filter(r => r.verdict === 'offered')
      const ways = (
        offered.length > 0 ? offered : f.remedies.filter(r => r.verdict === 'conditional')
      ).slice(0, 4)
      if (ways.length > 0)
        blocks.push(
          list(
            ways.map(r =>
              [
                `${r.title}${r.verdict === 'conditional' ? ' (if)' : ''}: ${r.why}`,
                r.needsPermit ? 'permit' : '',
                r.tests.length > 0 ? `test: ${r.tests.join('; ')}` : '',
              ]
                .filter(Boolean)
                .join(' · '),
            ),
          ),
        )
      const refused = f.remedies.filter(r => r.verdict === 'refused').slice(0, 3)
      if (refused.length > 0)
        blocks.push(
          say(`Not here: ${refused.map(r => `${r.title} (${r.why})`).join('; ')}.`, 'soft'),
        )
    }
  }
  return [
    ...blocks,
    ...leftOutBlocks(told),
    ...quoteBlocks(site),
    ...allowedBlocks(told),
    ...limitationBlocks(told),
    ...closing(),
  ]
}

function quoteBlocks(site: Site): Block[] {
  const tasks = tasksInOrder(site.house).filter(t => valueOf(t, 'state') === 'planned')
  if (tasks.length === 0) return []
  const total = tasks.reduce((n, t) => n + (valueOf(t, 'cents') ?? 0), 0)
  return [
    h('Quote'),
    {
      kind: 'table',
      head: ['Work', 'Price'],
      rows: [
        ...tasks.map(t => [labelOf(site, t), money(valueOf(t, 'cents') ?? 0)]),
        ['Works', money(total)],
      ],
      widths: [8, 2],
      figures: [1],
    },
    say(
      'Without call-out and permit. Prices are those of the price book the plan was made with. ' +
        'What is found when walls and boxes are opened is agreed before it is done.',
      'soft',
    ),
  ]
}

const FAMILY_WORDS: Readonly<Record<string, string>> = {
  service: 'Service and grounding',
  panels: 'Panels',
  conductors: 'Conductors',
  circuits: 'Circuits',
  outlets: 'Outlets and devices',
  rooms: 'Rooms',
}
/** Pass or correction for each part of the work, nothing else, and the list for the next visit. */
function correctionsPaper(told: Told): readonly Block[] {
  const { site, assessment, groups, findings } = told
  const proven = groups.filter(g => !g.first.leans)
  const open = groups.filter(g => g.first.leans)
  const familyOf = (r: { rule: string }) => ruleById(r.rule)?.family ?? 'rooms'
  const rows = Object.entries(FAMILY_WORDS).map(([family, words]) => {
    const mine = assessment.results.filter(r => familyOf(r) === family)
    const faults = findings.filter(f => familyOf(f) === family && !f.leans).length
    // A part of which nothing is recorded has not passed.
    const verdict =
      faults > 0
        ? count(faults, 'correction')
        : mine.some(r => r.outcome === 'undecided')
          ? 'not decided'
          : mine.some(r => r.outcome === 'clear')
            ? 'pass'
            : 'nothing recorded'
    return [words, verdict]
  })
  const line = (g: FindingGroup, n: number) =>
    `${n + 1}. ${g.first.title}: ${placesOf(g, 12)}. ${foundWords(g.first)} ${g.first.sections.join(', ')}`
  return [
    { kind: 'table', head: ['Part', 'Result'], rows, widths: [5, 3] },
    h('Corrections'),
    proven.length > 0 ? { kind: 'checks', items: proven.map(line) } : say('None.'),
    ...(open.length > 0
      ? [
          h('To be shown at the next visit'),
          list(open.map(g => `${g.first.title}: ${placesOf(g)}. ${leanWords(g.first)}`)),
        ]
      : []),
    ...leftOutBlocks(told),
    ...returnBlocks(site, assessment),
    h('At the next visit'),
    say(
      'Each correction is looked at again, with its reading. ' +
        'What nobody could see this time is not decided, and is no pass.',
    ),
    say('Inspector ______________   Day ______________   Next visit ______________'),
  ]
}

/** What was looked at again, visit by visit. */
function returnBlocks(site: Site, { results }: Assessment): Block[] {
  return returnVisitsOf(site.house).flatMap((visit): Block[] => {
    const { rechecks, isPassed } = sheetOf(site.house, visit, results)
    const number = valueOf(visit, 'number') ?? 1
    const head = [`Return visit ${number}`, valueOf(visit, 'on'), valueOf(visit, 'by')]
    const next = valueOf(visit, 'nextOn')
    return [
      h(head.filter(Boolean).join(' · ')),
      {
        kind: 'table',
        head: ['Found before', 'Found now', 'Reading and note'],
        widths: [6, 2, 3],
        rows: rechecks.map(r => [
          r.was,
          r.state,
          [valueOf(r.thing, 'reading'), valueOf(r.thing, 'note')].filter(Boolean).join('; '),
        ]),
      },
      ...picturesOf(site, new Set(rechecks.map(r => r.thing.id))),
      say(
        isPassed
          ? 'All corrections pass.'
          : `Not passed yet.${next ? ` Next visit: ${next}.` : ''}`,
        'strong',
      ),
    ]
  })
}

/** One page for the people who live there. Short words, short sentences; the same fault once, wherever it is. */
const MOST_LINES = 7
function householdPaper({ site, assessment, findings, leftOut, allowed }: Told): readonly Block[] {
  const of = (...severities: Severity[]): readonly (readonly SpokenResult[])[] => {
    const byRule = new Map<string, SpokenResult[]>()
    for (const f of findings)
      if (!f.leans && severities.includes(f.severity ?? 'note'))
        byRule.set(f.rule, [...(byRule.get(f.rule) ?? []), f])
    return [...byRule.values()]
  }
  // Where to go and look, and no more: space numbers are for those who open the panel.
  const whereOf = (f: SpokenResult): string => {
    const thing = site.house.subjects.get(f.subject.id)
    return thing ? labelOf(site, placeOf(site, thing, 'rooms')) : f.subject.label
  }
  const lines = (
    gs: readonly (readonly SpokenResult[])[],
    most = MOST_LINES,
    saysWhy = true,
  ): Block[] => {
    const shown = gs.slice(0, most).flatMap(([first, ...others]) => {
      if (!first) return []
      const more = others.length > 0 ? ` (and ${others.length} more)` : ''
      const leads = saysWhy ? (ruleById(first.rule)?.consequence ?? '') : ''
      return `${whereOf(first)}${more}: ${withinSentence(first.title)}. ${leads}`.trim()
    })
    const rest = gs.length - shown.length
    return [list(rest > 0 ? [...shown, `And ${rest} more. Ask for the long report.`] : shown)]
  }
  const now = of('make safe now')
  const soon = of('repair')
  const later = [...of('upgrade'), ...allowed.map(g => g.all)]
  const passed = assessment.totals.clear
  return [
    h('Tonight'),
    ...(now.length > 0
      ? [
          say('Turn these off, keep away from them, and call a licensed electrician.'),
          ...lines(now),
        ]
      : [
          say('We found nothing that has to be done tonight. We did not see all of it: see below.'),
        ]),
    h('Soon'),
    ...(soon.length > 0
      ? [
          say('Have a licensed electrician fix these. Do not wait for the next job in the house.'),
          ...lines(soon, 3),
        ]
      : [say('Nothing.')]),
    h('It can wait'),
    ...(later.length > 0
      ? [
          say(
            'These were fine when they were put in, or are small. Fix them when work is done there.',
          ),
          ...lines(later, 3, false),
        ]
      : [say('Nothing.')]),
    h('What is fine'),
    say(`${count(passed, 'check')} passed. We saw no fault there.`),
    h('What we did not see'),
    say(
      `We could not see all of it: ${count(assessment.totals.undecided, 'check')} stayed open. ` +
        'That does not mean it is fine, and it does not mean it is bad.',
    ),
    ...(leftOut.length > 0
      ? [say(`${count(leftOut.length, 'thing')} found but not told here: ask for the long report.`)]
      : []),
    say('If you smell burning, or feel a tingle, switch the main off and call for help.', 'strong'),
  ]
}
