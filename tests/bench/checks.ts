/**
 * Twenty-odd real rules written again as bare decisions over what was derived, in a neutral form, so that the same
 * checks can run as plain functions, in json-logic-js and in json-rules-engine. First condition that holds decides.
 */
import {
  roleOf,
  gfciOf,
  groundOf,
  neutralBondOf,
  valueOf,
  type Kind,
  type Outcome,
  type Site,
  type Subject,
} from '../../core'
import { sharesBar } from '../../core/derive/bond'
import { tableMetals } from '../../core/derive/allowed'

export type Cond =
  | ['eq' | 'ne' | 'lt' | 'ge' | 'gt', string, unknown]
  | ['in', string, readonly unknown[]]
  | ['all' | 'any', ...Cond[]]
export interface Check {
  rule: string
  kind: Kind
  cases: readonly (readonly [Cond, Outcome])[]
  otherwise: Outcome
}

const unseen = (field: string): Cond => ['eq', field, null]
/** One look decides: the right value is clear, another a fault, none undecided. */
const look = (
  rule: string,
  kind: Kind,
  field: string,
  right: unknown,
  first: Check['cases'] = [],
): Check => ({
  rule,
  kind,
  cases: [...first, [unseen(field), 'undecided'], [['eq', field, right], 'clear']],
  otherwise: 'fault',
})
const notMeter: Check['cases'] = [
  [['eq', 'type', 'meter'], 'n/a'],
  [unseen('type'), 'undecided'],
]
const panelOnly: Check['cases'] = [
  [['in', 'type', ['meter', 'disconnect']], 'n/a'],
  [unseen('type'), 'undecided'],
]
const receptacleOnly: Check['cases'] = [
  [['all', ['ne', 'type', null], ['ne', 'type', 'receptacle']], 'n/a'],
]

export const CHECKS: readonly Check[] = [
  look('dead-front-missing', 'enclosure', 'cover', 'in place', notMeter),
  look('cover-screws', 'enclosure', 'coverScrews', 'all blunt', notMeter),
  look('panel-location', 'enclosure', 'location', 'ordinary', notMeter),
  look('unused-opening', 'enclosure', 'openings', 0),
  look('corrosion-debris', 'enclosure', 'corrosion', 'none'),
  look('panel-trip-record', 'enclosure', 'hasTripRecord', false, panelOnly),
  {
    rule: 'panel-no-protective-breakers',
    kind: 'enclosure',
    cases: [...panelOnly, [unseen('protectiveBreakers'), 'undecided']],
    otherwise: 'clear',
  },
  {
    rule: 'directory',
    kind: 'enclosure',
    cases: [
      [['in', 'type', ['meter', 'disconnect']], 'n/a'],
      [['in', 'directory', ['vague', 'missing']], 'fault'],
      [['all', ['ne', 'contradictions', null], ['gt', 'contradictions', 0]], 'fault'],
      [['any', unseen('type'), unseen('directory'), unseen('contradictions')], 'undecided'],
    ],
    otherwise: 'clear',
  },
  {
    rule: 'main-bond-missing',
    kind: 'enclosure',
    cases: [
      [unseen('$role'), 'undecided'],
      [['ne', '$role', 'service'], 'n/a'],
      [['eq', '$bond', false], 'fault'],
      [['eq', '$isolatedBar', true], 'fault'],
      [['any', unseen('$bond'), ['eq', '$openBar', true]], 'undecided'],
    ],
    otherwise: 'clear',
  },
  {
    rule: 'neutral-bonded-downstream',
    kind: 'enclosure',
    cases: [
      [unseen('$role'), 'undecided'],
      [['ne', '$role', 'load'], 'n/a'],
      [
        [
          'all',
          ['any', ['eq', '$bond', true], ['eq', '$shares', true]],
          ['eq', '$oldFeeder', true],
        ],
        'clear',
      ],
      [
        ['all', ['any', ['eq', '$bond', true], ['eq', '$shares', true]], unseen('$oldFeeder')],
        'undecided',
      ],
      [['any', ['eq', '$bond', true], ['eq', '$shares', true]], 'fault'],
      [['any', unseen('$bond'), unseen('$shares')], 'undecided'],
    ],
    otherwise: 'clear',
  },
  {
    rule: 'doubled-hot',
    kind: 'breaker',
    cases: [
      [['eq', 'role', 'spare'], 'n/a'],
      [unseen('conductorsOnTerminal'), 'undecided'],
      [['lt', 'conductorsOnTerminal', 2], 'clear'],
      [['gt', 'conductorsOnTerminal', 2], 'fault'],
      [unseen('isMarkedForTwo'), 'undecided'],
      [['eq', 'isMarkedForTwo', true], 'clear'],
    ],
    otherwise: 'fault',
  },
  look('overheated-termination', 'breaker', 'termination', 'sound', [
    [['eq', 'role', 'spare'], 'n/a'],
  ]),
  look('breaker-not-listed-for-panel', 'breaker', 'fitsPanel', 'listed', [
    [['in', 'device', ['plug fuse', 'cartridge fuse']], 'n/a'],
  ]),
  look('insulation-failed', 'segment', 'insulation', 'sound'),
  {
    rule: 'cable-unprotected-at-entry',
    kind: 'segment',
    cases: [
      [unseen('entry'), 'undecided'],
      [['in', 'entry', ['none', 'jacket ends before the fitting']], 'fault'],
      [
        ['all', ['eq', 'entry', 'none, single-gang plastic box'], unseen('fastenedAtBoxIn')],
        'undecided',
      ],
      [
        ['all', ['eq', 'entry', 'none, single-gang plastic box'], ['gt', 'fastenedAtBoxIn', 8]],
        'fault',
      ],
    ],
    otherwise: 'clear',
  },
  {
    rule: 'hot-on-unmarked-white',
    kind: 'segment',
    cases: [
      [['eq', 'isWhiteHot', false], 'n/a'],
      [unseen('isWhiteHot'), 'undecided'],
      [
        [
          'in',
          'wiring',
          ['steel conduit', 'aluminum conduit', 'flexible conduit', 'plastic conduit'],
        ],
        'fault',
      ],
      [['eq', 'isWhiteMarked', false], 'fault'],
      [['any', unseen('isWhiteMarked'), unseen('wiring')], 'undecided'],
    ],
    otherwise: 'clear',
  },
  {
    rule: 'required-20A-circuit-downsized',
    kind: 'circuit',
    cases: [
      [['all', ['ne', '$rating', null], ['ge', '$rating', 20]], 'clear'],
      [['eq', 'requiredUse', 'none'], 'n/a'],
      [['any', unseen('requiredUse'), unseen('$rating')], 'undecided'],
    ],
    otherwise: 'fault',
  },
  look('device-worn', 'outlet', 'condition', 'sound', [
    [['all', ['ne', 'type', null], ['ne', 'type', 'receptacle'], ['ne', 'type', 'switch']], 'n/a'],
    [unseen('type'), 'undecided'],
  ]),
  {
    rule: 'bootleg-ground',
    kind: 'outlet',
    cases: [
      ...receptacleOnly,
      [['eq', 'slots', 'two'], 'n/a'],
      [['any', unseen('type'), unseen('slots')], 'undecided'],
      [['all', ['ne', 'groundToReferenceV', null], ['ge', 'groundToReferenceV', 50]], 'fault'],
      [['eq', 'hasNeutralGroundJumper', true], 'fault'],
      [['eq', 'hasNeutralGroundJumper', false], 'clear'],
      [['all', ['ne', 'neutralGroundRiseV', null], ['ge', 'neutralGroundRiseV', 0.5]], 'clear'],
      [['eq', 'lamps', 'open ground'], 'clear'],
    ],
    otherwise: 'undecided',
  },
  {
    rule: 'open-ground-three-slot',
    kind: 'outlet',
    cases: [
      ...receptacleOnly,
      [['any', unseen('type'), unseen('slots')], 'undecided'],
      [
        ['all', ['eq', 'slots', 'two'], ['in', 'ground', ['connected', 'present, not connected']]],
        'fault',
      ],
      [['all', ['eq', 'slots', 'two'], ['ne', 'ground', 'none']], 'undecided'],
      [['all', ['eq', 'slots', 'two'], ['lt', '$yearTo', 1962]], 'clear'],
      [['all', ['eq', 'slots', 'two'], ['ge', '$yearFrom', 1962]], 'fault'],
      [['eq', 'slots', 'two'], 'undecided'],
      [['eq', '$ground', 'good'], 'clear'],
      [['any', unseen('$ground'), unseen('$gfci')], 'undecided'],
      [['eq', '$gfci', 'none'], 'fault'],
      [
        [
          'all',
          ['eq', 'isMarkedNoGround', true],
          ['any', ['eq', '$gfci', 'own'], ['eq', 'isMarkedGfci', true]],
        ],
        'clear',
      ],
      [
        [
          'any',
          ['eq', 'isMarkedNoGround', false],
          ['all', ['ne', '$gfci', 'own'], ['eq', 'isMarkedGfci', false]],
        ],
        'n/a',
      ],
    ],
    otherwise: 'undecided',
  },
  {
    rule: 'missing-marking',
    kind: 'outlet',
    cases: [
      ...receptacleOnly,
      [['eq', 'slots', 'two'], 'n/a'],
      [['any', unseen('type'), unseen('slots')], 'undecided'],
      [['any', ['eq', '$ground', 'good'], ['eq', '$gfci', 'none']], 'n/a'],
      [['any', unseen('$ground'), unseen('$gfci')], 'undecided'],
      [
        [
          'any',
          ['eq', 'isMarkedNoGround', false],
          ['all', ['ne', '$gfci', 'own'], ['eq', 'isMarkedGfci', false]],
        ],
        'fault',
      ],
      [
        [
          'any',
          unseen('isMarkedNoGround'),
          ['all', ['ne', '$gfci', 'own'], unseen('isMarkedGfci')],
        ],
        'undecided',
      ],
    ],
    otherwise: 'clear',
  },
  {
    rule: 'aluminum-at-unmarked-device',
    kind: 'outlet',
    cases: [
      [
        ['all', ['ne', 'type', null], ['ne', 'type', 'receptacle'], ['ne', 'type', 'switch']],
        'n/a',
      ],
      [unseen('metal'), 'undecided'],
      [['eq', '$metalKind', 'copper'], 'n/a'],
      [unseen('type'), 'undecided'],
      [['eq', '$metalKind', 'open'], 'undecided'],
      [['eq', 'termination', 'push-in'], 'fault'],
      [['all', ['eq', '$metalKind', 'clad'], unseen('termination')], 'undecided'],
      [['eq', '$metalKind', 'clad'], 'clear'],
      [['eq', 'aluminumMarking', 'none'], 'fault'],
      [['any', unseen('aluminumMarking'), unseen('deviceAmps')], 'undecided'],
      [['all', ['ge', 'deviceAmps', 30], ['ne', 'aluminumMarking', 'AL-CU']], 'fault'],
      [['all', ['lt', 'deviceAmps', 30], ['ne', 'aluminumMarking', 'CO/ALR']], 'fault'],
      [unseen('termination'), 'undecided'],
    ],
    otherwise: 'clear',
  },
]

const orNull = <T>(value: T | undefined): T | null => value ?? null

/** What the walks derive for a subject, worked out once per house and given to every contender alike. */
export function derivedOf(site: Site, subject: Subject): Record<string, unknown> {
  if (subject.kind === 'enclosure') {
    const enclosure = subject as Subject<'enclosure'>
    const bars = site.children(enclosure, 'bar').filter(b => {
      const role = valueOf(b, 'role')
      return role !== 'neutral' && role !== 'common'
    })
    const feeder = site.get(valueOf(enclosure, 'fedFrom'), 'feeder')
    const building = site.buildingOf(enclosure)
    return {
      $role: orNull(roleOf(site, enclosure).value),
      $bond: orNull(neutralBondOf(site, enclosure).value),
      $shares: orNull(sharesBar(site, enclosure).value),
      $isolatedBar: bars.some(
        b =>
          valueOf(b, 'role') !== undefined &&
          valueOf(b, 'isTiedToNeutral') === false &&
          valueOf(b, 'isBondedToEnclosure') === false,
      ),
      $openBar: bars.some(
        b =>
          valueOf(b, 'role') === undefined ||
          (valueOf(b, 'isTiedToNeutral') !== true && valueOf(b, 'isBondedToEnclosure') !== true),
      ),
      $oldFeeder: oldFeeder(site, building, feeder),
    }
  }
  if (subject.kind === 'circuit')
    return {
      $rating: orNull(
        valueOf(site.get(valueOf(subject as Subject<'circuit'>, 'fedBy'), 'breaker'), 'ratingAmps'),
      ),
    }
  if (subject.kind === 'outlet') {
    const outlet = subject as Subject<'outlet'>
    const years = site.yearsOf(outlet)
    const metal = valueOf(outlet, 'metal')
    const kinds = tableMetals(metal)
    return {
      $ground: orNull(groundOf(site, outlet).value),
      $gfci: orNull(gfciOf(site, outlet).value),
      $yearFrom: years.from,
      $yearTo: years.to,
      $metalKind: kinds.every(k => k.metal === 'copper')
        ? 'copper'
        : kinds.length > 1
          ? 'open'
          : kinds[0]!.isCopperClad
            ? 'clad'
            : 'aluminum',
    }
  }
  return {}
}

function oldFeeder(
  site: Site,
  building: Subject<'building'> | undefined,
  feeder: Subject<'feeder'> | undefined,
): boolean | null {
  if (!building) return false
  const detached = valueOf(building, 'isDetached')
  if (detached === false) return false
  if (!feeder) return detached === undefined ? null : false
  const egc = valueOf(feeder, 'egc'),
    path = valueOf(feeder, 'hasOtherMetallicPath'),
    gf = valueOf(feeder, 'hasGroundFaultProtectionAhead'),
    years = site.yearsOf(feeder)
  if (
    egc === 'wire' ||
    egc === 'metal raceway or armor' ||
    path === true ||
    gf === true ||
    years.from >= 2008
  )
    return false
  return detached === true && egc === 'none' && path === false && gf === false && years.to < 2008
    ? true
    : null
}

/**
 * The check as a plain function over the folded subject and what was derived: no evidence, no
 * working, no allocation.
 */
export function asPlain(
  check: Check,
): (facts: Record<string, unknown>, derived: Record<string, unknown>) => Outcome {
  const fields = new Set<string>()
  const read = (name: string) => {
    fields.add(name)
    return name.startsWith('$') ? `d.${name}` : `v_${name}`
  }
  const code = (c: Cond): string => {
    switch (c[0]) {
      case 'all':
        return `(${(c.slice(1) as Cond[]).map(code).join(' && ')})`
      case 'any':
        return `(${(c.slice(1) as Cond[]).map(code).join(' || ')})`
      case 'in':
        return `(${c[2].map(v => `${read(c[1])} === ${JSON.stringify(v)}`).join(' || ')})`
      default:
        return `${read(c[1])} ${{ eq: '===', ne: '!==', lt: '<', ge: '>=', gt: '>' }[c[0]]} ${JSON.stringify(c[2])}`
    }
  }
  const body = check.cases
    .map(([c, outcome]) => `if (${code(c)}) return ${JSON.stringify(outcome)};`)
    .join('\n')
  const reads = [...fields]
    .filter(f => !f.startsWith('$'))
    .map(
      f =>
        `const f_${f} = f.${f}; const v_${f} = f_${f} !== undefined && f_${f}.state === 'known' ? f_${f}.value : null;`,
    )
    .join('\n')
  return new Function(
    'f',
    'd',
    `${reads}\n${body}\nreturn ${JSON.stringify(check.otherwise)}`,
  ) as never
}

export function asJsonLogic(check: Check): object {
  const logic = (c: Cond): object => {
    switch (c[0]) {
      case 'all':
        return { and: (c.slice(1) as Cond[]).map(logic) }
      case 'any':
        return { or: (c.slice(1) as Cond[]).map(logic) }
      case 'in':
        return { in: [{ var: c[1] }, c[2]] }
      default:
        return {
          [{ eq: '===', ne: '!==', lt: '<', ge: '>=', gt: '>' }[c[0]]]: [{ var: c[1] }, c[2]],
        }
    }
  }
  return { if: [...check.cases.flatMap(([c, outcome]) => [logic(c), outcome]), check.otherwise] }
}

/** Rules for json-rules-engine: the first case has the highest priority; its event carries the outcome. */
export function asEngineRules(check: Check): object[] {
  const condition = (c: Cond): object => {
    switch (c[0]) {
      case 'all':
        return { all: (c.slice(1) as Cond[]).map(condition) }
      case 'any':
        return { any: (c.slice(1) as Cond[]).map(condition) }
      case 'in':
        return { fact: c[1], operator: 'in', value: c[2] }
      default:
        return {
          fact: c[1],
          operator: {
            eq: 'equal',
            ne: 'notEqual',
            lt: 'lessThan',
            ge: 'greaterThanInclusive',
            gt: 'greaterThan',
          }[c[0]],
          value: c[2],
        }
    }
  }
  return check.cases.map(([c, outcome], i) => ({
    name: `${check.rule} ${i}`,
    priority: 1000 - i,
    conditions: { all: [condition(c)] },
    event: { type: check.rule, params: { outcome, i } },
  }))
}
