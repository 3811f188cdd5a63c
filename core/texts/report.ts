import { z } from 'zod'
import { fieldOf, STAGES, type Kind } from '../model/fields'
import { factsOf, valueOf, type House } from '../model/house'
import { GRADES } from '../model/observation'
import { Site } from '../derive/site'
import { SEVERITIES } from '../engine/severity'
import { STANDINGS } from '../engine/standing'
import { assess } from '../assess/assess'
import { groupAlike, type FindingGroup } from '../views/groups'
import { ruleById } from '../rules'
import { compareIn, labelOf, valueText } from './labels'
import { recordedScope } from '../visit/recorded'
import { visitOf, type VisitStop } from '../visit/visit'

export type Voice = 'inspector' | 'electrician'

const Comparison = z.object({
  left: z.number(),
  leftLabel: z.string(),
  sign: z.enum(['>', '<', '=']),
  right: z.number(),
  rightLabel: z.string(),
  unit: z.string(),
  isRating: z.boolean().optional(),
})
const Item = z.object({
  rule: z.string(),
  title: z.string(),
  /** Every place it stands at. */ where: z.array(z.string()),
  seen: z.string(),
  leadsTo: z.string(),
  who: z.string(),
  severity: z.enum(SEVERITIES),
  /** Said where a person set the severity. */ byHand: z.string(),
  /** Checks that failed besides the one that is said first. */ also: z.array(z.string()),
  /** Where it is no proven fault: what it would have to be to be none, and the look that settles it. */
  leans: z.object({ to: z.string(), unless: z.array(z.string()), ask: z.string() }).nullable(),
  standing: z.enum(STANDINGS),
  standingWhy: z.string(),
  grade: z.enum(GRADES).nullable(),
  compare: Comparison.nullable(),
  working: z.array(z.string()),
  sections: z.array(z.string()),
  remedies: z.array(
    z.object({
      title: z.string(),
      verdict: z.enum(['offered', 'conditional', 'refused']),
      why: z.string(),
      duties: z.array(z.string()),
      markings: z.array(z.string()),
      tests: z.array(z.string()),
      needsPermit: z.boolean(),
    }),
  ),
})
/** A report as data: the page and the printer give it its shape. */
export const Report = z.object({
  voice: z.enum(['inspector', 'electrician']),
  name: z.string(),
  facts: z.array(z.object({ label: z.string(), value: z.string() })),
  counts: z.array(z.object({ severity: z.enum(SEVERITIES), count: z.number() })),
  judged: z.number(),
  clear: z.number(),
  leaning: z.number(),
  undecided: z.number(),
  groups: z.array(z.object({ severity: z.enum(SEVERITIES), items: z.array(Item) })),
  /** Below today's rule, lawful when installed: what it is, where, since when the rule exists and what work ends it. */
  allowed: z.array(
    z.object({
      rule: z.string(),
      title: z.string(),
      where: z.array(z.string()),
      seen: z.string(),
      means: z.string(),
      severity: z.enum(SEVERITIES),
    }),
  ),
  limitations: z.array(z.object({ where: z.string(), fact: z.string(), reason: z.string() })),
  /** What the visit covered: its purpose, and its judgments as settled, still open in scope, and outside. */
  scope: z.object({
    purpose: z.string(),
    settled: z.number(),
    inScope: z.number(),
    outside: z.number(),
  }),
  /** What lay outside the visit, said once for each class. */
  outside: z.array(z.object({ text: z.string(), judgments: z.number() })),
  /** Looks within the scope that nobody has taken yet, by place. */
  notYetSeen: z.array(
    z.object({
      stage: z.enum(STAGES),
      items: z.array(z.object({ where: z.string(), look: z.string(), settles: z.number() })),
    }),
  ),
  cautions: z.array(z.string()),
})
export type Report = z.infer<typeof Report>

/** Cautions that go with every report. */
export const CAUTIONS: readonly string[] = [
  'Work on or near live parts is for qualified people. The line side of a main stays live with the main off.',
  'A cover can be energized: it is tested before it is touched. Absence of voltage is verified ' +
    'with a tester proved before and after.',
  'Many of these jobs need a permit and a licensed person. Local law and the local inspector decide.',
  'These are second opinions on what was seen on the day, not an approval of the installation.',
]

/** Who should look at a finding, by how urgent it is. */
export const WHO = {
  'make safe now': 'A licensed electrician, now; keep the part off or out of reach until then',
  repair: 'A licensed electrician',
  upgrade: 'A licensed electrician, at the next work on it',
  note: 'For the owner to know',
} as const

/** Writes the report of a house in one voice. An inspector describes and refers; an electrician cites and specifies. */
export function writeReport(house: House, voice: Voice): Report {
  const site = new Site(house)
  const { premises } = site
  const assessment = assess(house)
  const isElectrician = voice === 'electrician'
  const showsSections = isElectrician || valueOf(premises, 'citeSections') === true
  // What leans to a fault stands with the faults, and says what it hangs on.
  const faults = assessment.results.filter(r => r.outcome === 'fault' || r.leans !== undefined)
  const item = ({ first: r, all }: FindingGroup) => ({
    rule: r.rule,
    title: r.title,
    where: all.map(f => f.subject.label),
    seen: r.why,
    leadsTo: ruleById(r.rule)?.consequence ?? '',
    who: WHO[r.severity!],
    severity: r.severity!,
    byHand: r.byHand ? `Weighed by hand (computed: ${r.byHand.computed}): ${r.byHand.reason}` : '',
    also: r.checks.slice(1).map(c => c.sentence),
    leans: r.leans
      ? {
          to: r.leans.to,
          unless: r.leans.unless,
          ask: `${r.leans.ask.label}: ${r.leans.ask.look}`,
        }
      : null,
    standing: r.standing!,
    standingWhy: r.standingWhy ?? '',
    grade: r.grade,
    compare: r.compare && compareIn(r.compare, site.units),
    working: isElectrician ? r.working : [],
    sections: showsSections ? r.sections : [],
    remedies: isElectrician
      ? r.remedies.map(({ title, verdict, why, duties, markings, tests, needsPermit }) => ({
          title,
          verdict,
          why,
          duties,
          markings,
          tests,
          needsPermit,
        }))
      : [],
  })
  const named = (
    [
      'name',
      'street',
      'client',
      'assessor',
      'visitedOn',
      'purpose',
      'yearBuilt',
      'edition',
    ] as const
  ).flatMap(name => {
    const fact = premises.facts[name]
    const field = fieldOf('premises', name)!
    return fact.state === 'known'
      ? [{ label: field.label, value: valueText(field, fact.value, site.units) }]
      : []
  })
  const visit = visitOf(site, assessment.results, recordedScope(site))
  return {
    voice,
    name: valueOf(premises, 'name') ?? 'Job',
    facts: named,
    counts: SEVERITIES.map(severity => ({ severity, count: assessment.totals.severity[severity] })),
    judged:
      assessment.totals.fault +
      assessment.totals.allowed +
      assessment.totals.clear +
      assessment.totals.undecided,
    clear: assessment.totals.clear,
    leaning: assessment.totals.leaning,
    undecided: assessment.totals.undecided,
    groups: SEVERITIES.map(severity => ({
      severity,
      items: groupAlike(faults.filter(r => r.severity === severity)).map(item),
    })).filter(g => g.items.length > 0),
    allowed: groupAlike(assessment.results.filter(r => r.outcome === 'allowed')).map(
      ({ first: r, all }) => ({
        rule: r.rule,
        title: r.title,
        where: all.map(f => f.subject.label),
        seen: r.why,
        means: r.standingWhy ?? '',
        severity: r.severity!,
      }),
    ),
    limitations: limitationsOf(site),
    scope: {
      purpose: visit.scope.purpose,
      settled: visit.counts.settled,
      inScope: visit.counts.inScope,
      outside: visit.counts.outside,
    },
    outside: visit.limitations.map(({ text, judgments }) => ({ text, judgments })),
    notYetSeen: STAGES.map(stage => ({
      stage,
      items: visit.stops.filter(s => s.stage === stage).flatMap(openAt),
    })).filter(g => g.items.length > 0),
    cautions: [...CAUTIONS],
  }
}

/** What is still to be looked at in one place, each kind of look once. */
function openAt({
  place,
  attestation,
  questions,
}: VisitStop): Report['notYetSeen'][number]['items'] {
  const asked = questions.map(q => ({
    where: q.things.length === 1 ? (q.things[0]?.label ?? '') : place.label,
    look: q.things.length === 1 ? q.look : `${q.look} (${q.things.length} times)`,
    settles: q.judgments,
  }))
  if (!attestation) return asked
  const { says, judgments } = attestation
  return [{ where: place.label, look: `Attest: ${says.join('; ')}`, settles: judgments }, ...asked]
}

/** Everything that was tried and could not be seen, with its reason. */
export function limitationsOf(site: Site): { where: string; fact: string; reason: string }[] {
  const list: { where: string; fact: string; reason: string }[] = []
  for (const subject of site.house.subjects.values()) {
    for (const fact of factsOf(subject)) {
      if (fact.state === 'blocked')
        list.push({
          where: labelOf(site, subject),
          fact: fieldOf(subject.kind as Kind, fact.field)?.label ?? fact.field,
          reason: fact.reason,
        })
    }
  }
  return list
}
