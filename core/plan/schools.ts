import type { RULE_IDS } from '../model/rule-ids'

type RuleId = (typeof RULE_IDS)[number]

/** One lawful way among several, and why a desk takes it. */
export interface School {
  readonly id: string
  readonly label: string
  readonly why: string
  /** Remedies this school takes; the others give way where one of these can be done. */
  readonly remedies: readonly string[]
}
export interface SchoolQuestion {
  readonly id: string
  readonly title: string
  readonly rules: readonly RuleId[]
  readonly schools: readonly School[]
}
/** A school chosen for the whole house, or for one circuit. */
export interface SchoolChoice {
  readonly school: string
  readonly circuit?: string
}

const RECONNECT = 'reconnect-ground'
const GROUND_WAYS = [RECONNECT, 'run-grounding-conductor', 'use-raceway']

/** Questions that good desks answer differently; nobody has to answer them, and the plan then goes by its aim. */
export const SCHOOLS: readonly SchoolQuestion[] = [
  {
    id: 'ungrounded',
    title: 'Three-slot outlets without a ground',
    rules: ['open-ground-three-slot'],
    schools: [
      {
        id: 'ungrounded-breaker',
        label: 'One breaker for each circuit',
        why: 'Fewest devices to test, nothing opened in the rooms; no ground is gained',
        remedies: [RECONNECT, 'gfci-breaker', 'protect-beside-panel'],
      },
      {
        id: 'ungrounded-first',
        label: 'A device at the first outlet',
        why: 'No work in the panel; the order of the outlets must be known, and no ground is gained',
        remedies: [RECONNECT, 'gfci-first-outlet'],
      },
      {
        id: 'ungrounded-each',
        label: 'A device at every outlet',
        why: 'Needs no tracing; many buttons to press each month, and no ground is gained',
        remedies: [RECONNECT, 'gfci-here'],
      },
      {
        id: 'ungrounded-ground',
        label: 'A grounding conductor',
        why: 'A real ground without new circuits; walls are opened along the run',
        remedies: GROUND_WAYS,
      },
      {
        id: 'ungrounded-rewire',
        label: 'New cable',
        why: 'Ground, new insulation and all that new circuits bring; dearest, with a permit',
        remedies: [RECONNECT, 'new-cable'],
      },
      {
        id: 'ungrounded-two-slot',
        label: 'Two slots put back',
        why: 'Cheapest, and honest about what is there; nothing with a ground pin fits any more',
        remedies: [RECONNECT, 'two-slot-device'],
      },
    ],
  },
  {
    id: 'old-panel',
    title: 'Protection in an old panel',
    rules: ['gfci-missing', 'afci-missing'],
    schools: [
      {
        id: 'protect-in-panel',
        label: 'In the panel',
        why: 'One breaker covers the whole circuit; it must be made for this panel',
        remedies: ['gfci-breaker', 'afci-breaker'],
      },
      {
        id: 'protect-beside',
        label: 'Beside the panel',
        why: 'Serves where no breaker is made for the panel; it cures nothing that is wrong in the panel',
        remedies: ['protect-beside-panel'],
      },
      {
        id: 'protect-outlets',
        label: 'At the outlets',
        why: 'No work in the panel; more places to test and reset',
        remedies: ['gfci-here', 'gfci-first-outlet', 'afci-first-outlet', 'afci-receptacle-here'],
      },
    ],
  },
  {
    id: 'aluminum',
    title: 'Aluminum at devices',
    rules: ['aluminum-at-unmarked-device'],
    schools: [
      {
        id: 'aluminum-pigtail',
        label: 'Copper pigtails',
        why: 'Crimped or set-screw, by their print; every outlet of the chain is opened',
        remedies: ['crimped-pigtail', 'lug-pigtail'],
      },
      {
        id: 'aluminum-device',
        label: 'Devices marked for aluminum',
        why: 'Cheap where receptacles and switches are all there is; splices stay as they are',
        remedies: ['co-alr-device'],
      },
      {
        id: 'aluminum-rewire',
        label: 'Copper rewire',
        why: 'The only way after which no aluminum is left; dearest, walls are opened',
        remedies: ['copper-rewire'],
      },
    ],
  },
  {
    id: 'multiwire',
    title: 'Two circuits on one neutral',
    rules: ['multiwire-no-common-trip'],
    schools: [
      {
        id: 'multiwire-breaker',
        label: 'Two-pole breaker',
        why: 'Opens both hots on a fault of either; needs two spaces side by side on opposite legs',
        remedies: ['two-pole-breaker'],
      },
      {
        id: 'multiwire-tie',
        label: 'Listed handle tie',
        why: 'Enough where only line-to-neutral loads are served and no GFCI or AFCI is asked for',
        remedies: ['listed-handle-tie'],
      },
    ],
  },
]
const ALL = SCHOOLS.flatMap(q => q.schools.map(school => ({ question: q, school })))
export const schoolById = (id: string): School | undefined =>
  ALL.find(a => a.school.id === id)?.school

/** The school that speaks of a finding: that of its circuit before that of the house. */
export function bySchool(
  choices: readonly SchoolChoice[],
  rule: string,
  circuit: string | undefined,
): School | undefined {
  const speaking = choices.filter(c =>
    ALL.some(a => a.school.id === c.school && a.question.rules.includes(rule as RuleId)),
  )
  const own = speaking.find(c => c.circuit !== undefined && c.circuit === circuit)
  const chosen = own ?? speaking.find(c => c.circuit === undefined)
  return chosen && schoolById(chosen.school)
}
