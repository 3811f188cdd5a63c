import type { Assessment, SpokenResult } from '../assess/assess'
import type { Site } from '../derive/site'
import type { RULE_IDS } from '../model/rule-ids'
import { valueOf } from '../model/house'
import { ruleById } from '../rules'
import { labelOf } from '../texts/labels'
import type { Block } from './paper'

type RuleId = (typeof RULE_IDS)[number]
/** One line of a short form: a question of its reader, and the checks that answer it. */
interface Question {
  readonly asks: string
  readonly rules: readonly RuleId[]
}

/** What may burn or hurt, as an insurer weighs it. */
const INSURANCE: readonly Question[] = [
  {
    asks: 'Breakers and fuses that let conductors overheat',
    rules: ['overfused-conductor', 'overfused-feeder', 'plug-fuse-edison-base', 'bus-overloaded'],
  },
  {
    asks: 'Panels that cannot be relied on, or take no protective breakers',
    rules: ['breaker-test-failed', 'panel-no-protective-breakers', 'breaker-not-listed-for-panel'],
  },
  {
    asks: 'Signs of heat at breakers, joints or devices',
    rules: ['breaker-hot', 'overheated-splice', 'overheated-termination', 'insulation-failed'],
  },
  {
    asks: 'Aluminum branch wiring on parts not made for it',
    rules: [
      'aluminum-at-unmarked-device',
      'aluminum-at-unmarked-breaker',
      'mixed-metal-splice',
      'unidentified-conductor-metal',
    ],
  },
  { asks: 'Knob-and-tube and cloth-covered cable', rules: ['knob-and-tube', 'cloth-cable'] },
  {
    asks: 'Splices and cables outside of boxes, cords in place of wiring',
    rules: ['splice-outside-box', 'junction-buried', 'cord-as-fixed-wiring', 'box-fill'],
  },
  {
    asks: 'Openings and missing covers at live parts',
    rules: ['unused-opening', 'cover-missing', 'dead-front-missing'],
  },
  {
    asks: 'Service: drop, cable, neutral, disconnects',
    rules: ['service-drop', 'service-entrance-unsound', 'service-neutral', 'service-over-six'],
  },
  {
    asks: 'Grounding and bonding',
    rules: [
      'main-bond-missing',
      'neutral-bonded-downstream',
      'water-bond',
      'gas-bond',
      'csst-bond',
    ],
  },
  { asks: 'Smoke and carbon monoxide alarms', rules: ['smoke-co-alarms', 'smoke-alarms-old'] },
]
/** What tenants touch and rely on, as a rental inspection asks it. */
const RENTAL: readonly Question[] = [
  { asks: 'Smoke and carbon monoxide alarms', rules: ['smoke-co-alarms', 'smoke-alarms-old'] },
  {
    asks: 'Ground-fault protection where water is near',
    rules: ['gfci-missing', 'gfci-failed', 'gfci-not-readily-accessible'],
  },
  {
    asks: 'Receptacles: grounded as their slots say, wired right',
    rules: ['open-ground-three-slot', 'bootleg-ground', 'miswire', 'device-worn', 'device-loose'],
  },
  {
    asks: 'Covers in place, no live part within reach',
    rules: ['cover-missing', 'unused-opening', 'dead-front-missing', 'splice-outside-box'],
  },
  {
    asks: 'Panel within reach, its directory right',
    rules: ['working-space', 'panel-location', 'directory', 'handle-height'],
  },
  {
    asks: 'Breakers that fit their conductors',
    rules: ['overfused-conductor', 'overfused-feeder', 'overheated-termination'],
  },
  {
    asks: 'Baths and tubs',
    rules: ['tub-zone', 'hydromassage', 'closet-luminaire', 'lampholder-polarity'],
  },
  {
    asks: 'Outdoors: covers and devices for wet places',
    rules: ['wet-place-cover', 'weather-resistant', 'service-drop'],
  },
  { asks: 'Cords in place of wiring', rules: ['cord-as-fixed-wiring'] },
]

/** The answer to one question: a fault outweighs what is open, and what is open outweighs what passed. */
function answerOf(asked: Question, results: readonly SpokenResult[]): readonly [string, string] {
  const rules: ReadonlySet<string> = new Set(asked.rules)
  const mine = results.filter(r => rules.has(r.rule))
  const faults = mine.filter(r => r.outcome === 'fault')
  const open = mine.filter(r => r.outcome === 'undecided')
  const allowed = mine.filter(r => r.outcome === 'allowed')
  const named = (list: readonly SpokenResult[]) => {
    const titles = [...new Set(list.map(r => r.title))]
    return (
      titles.slice(0, 3).join('; ') + (titles.length > 3 ? `; and ${titles.length - 3} more` : '')
    )
  }
  const checks = (n: number, what = '') => `${n} ${what}${n === 1 ? 'check' : 'checks'}`
  const also = open.length > 0 ? ` ${checks(open.length, 'more ')} could not be decided.` : ''
  // Where nothing is recorded that a check could be made at, nobody knows; of feeders a house may have none.
  const blind = asked.rules.filter(
    id => ruleById(id)?.subject !== 'feeder' && !mine.some(r => r.rule === id),
  )
  if (faults.length > 0) return ['fault', `${faults.length}: ${named(faults)}.${also}`]
  if (open.length > 0) return ['not decided', `${checks(open.length)} could not be decided.`]
  if (blind.length > 0)
    return ['not decided', `Nothing is recorded that ${checks(blind.length)} could be made at.`]
  if (allowed.length > 0)
    return ['may remain', `${named(allowed)}: below today’s rule, lawful when installed.`]
  if (mine.some(r => r.outcome === 'clear'))
    return ['no fault found', `${checks(mine.filter(r => r.outcome === 'clear').length)} passed.`]
  return ['does not arise', 'Looked for, and nothing of the kind is here.']
}

/** One page of questions and answers. What nobody saw is told as such, and never as a good answer. */
export function shortForm(
  site: Site,
  { results }: Assessment,
  reader: 'insurance' | 'rental',
): readonly Block[] {
  const { premises } = site
  const built = valueOf(premises, 'yearBuilt')
  const wiring = [...new Set(site.all.segment.flatMap(s => valueOf(s, 'wiring') ?? []))]
  const metals = [...new Set(site.all.segment.flatMap(s => valueOf(s, 'metal') ?? []))]
  const panels = site.all.enclosure.filter(e => site.children(e, 'breaker').length > 0)
  const facts: readonly (readonly [string, string])[] = [
    ['Year built', built === undefined ? 'not known' : [built].flat().join(' to ')],
    [
      'Panels',
      panels
        .map(p => {
          const amps = valueOf(p, 'mainAmps')
          return `${labelOf(site, p)} (${amps === undefined ? 'main not read' : `main ${amps} A`})`
        })
        .join('; ') || 'none recorded',
    ],
    ['Wiring methods seen', wiring.join(', ') || 'none recorded'],
    ['Conductor metals seen', metals.join(', ') || 'none recorded'],
  ]
  // Whatever a form asks, what can hurt somebody today stands on it.
  const urgent = results.filter(r => r.outcome === 'fault' && r.severity === 'make safe now')
  return [
    { kind: 'heading', level: 1, text: 'The house' },
    {
      kind: 'table',
      head: ['Fact', 'As seen'],
      rows: facts.map(f => [...f]),
      widths: [3, 7],
    },
    { kind: 'heading', level: 1, text: 'To be made safe now' },
    urgent.length > 0
      ? { kind: 'list', items: urgent.map(r => `${r.title}: ${r.subject.label}.`) }
      : { kind: 'text', text: 'Nothing of the kind was found in what was seen.' },
    { kind: 'heading', level: 1, text: 'Questions' },
    {
      kind: 'table',
      head: ['Question', 'Answer', 'What it rests on'],
      rows: (reader === 'insurance' ? INSURANCE : RENTAL).map(q => [
        q.asks,
        ...answerOf(q, results),
      ]),
      widths: [4, 2, 5],
    },
    {
      kind: 'text',
      text:
        '“Not decided” is no good answer and no bad one: it was not seen, or not measured. ' +
        'The long report says what, where and why.',
    },
  ]
}
