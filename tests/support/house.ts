import { evaluate, Ledger, readJob, RULES, Site, type Observation, type Result } from '#core'

export type Node = Record<string, unknown>

/** Observations of a hand-written house, stamped the same way every time. */
export function observe(house: Node): Observation[] {
  let n = 0
  return readJob(structuredClone(house), {
    at: '2026-01-01T08:00:00.000Z',
    by: 'test',
    nextId: () => `t${String(n++).padStart(6, '0')}`,
  }).observations
}
export const siteOf = (house: Node): Site => new Site(new Ledger(observe(house)).house)

/** The result of a rule on one subject. */
export function judge(rule: string, house: Node, subject: string): Result {
  const site = siteOf(house)
  const found = evaluate(
    site,
    RULES.filter(r => r.id === rule),
  ).find(r => r.subject.id === subject)
  if (!found)
    throw new Error(
      `${rule} did not judge ${subject}; there are ${[...site.house.subjects.keys()].join(', ')}`,
    )
  return found
}

/** A lone panel inside the house, fed from the utility, with these breakers. */
export function panel(breakers: Node[], more: Node = {}, premises: Node = {}): Node {
  return {
    corvit: 1,
    form: 'house',
    premises: {
      yearBuilt: 1990,
      edition: 2020,
      visitedOn: '2026-01-01',
      // The turn of a rule is then the year of its edition.
      areAdoptionsRecorded: true,
      ...premises,
    },
    enclosures: [
      {
        id: 'main',
        type: 'panel',
        place: 'indoors',
        fedFrom: 'utility',
        mainKind: 'main breaker',
        mainAmps: 200,
        bus: 'single phase',
        numbering: 'odd left, even right',
        spaces: 24,
        hasSecondSource: false,
        ...more,
        breakers,
      },
    ],
  }
}

/** One breaker with one circuit of one run of conductors. */
export function run(
  ratingAmps: number | undefined,
  segment: Node,
  circuit: Node = {},
  breaker: Node = {},
): Node {
  return {
    id: 'b',
    space: 1,
    poles: 1,
    ...(ratingAmps !== undefined && { ratingAmps }),
    ...breaker,
    circuit: {
      id: 'c',
      supplies: 'lighting',
      sharesNeutralWith: [],
      ...circuit,
      segments: [{ id: 's', ...segment }],
    },
  }
}

/** A house with one outlet on one circuit. */
export function oneOutlet(
  outlet: Node,
  more: { premises?: Node; breaker?: Node; circuit?: Node; others?: Node[]; rooms?: Node[] } = {},
): Node {
  return {
    ...panel(
      [
        {
          id: 'b',
          space: 1,
          poles: 1,
          ratingAmps: 15,
          protection: 'standard',
          ...more.breaker,
          circuit: {
            id: 'c',
            ...more.circuit,
            outlets: [
              ...(more.others ?? []),
              { id: 'p', type: 'receptacle', slots: 'three', ...outlet },
            ],
          },
        },
      ],
      {},
      more.premises,
    ),
    ...(more.rooms && { rooms: more.rooms }),
  }
}
