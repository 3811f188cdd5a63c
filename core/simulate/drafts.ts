/** Faults that can be put into a house, drawn at random: what is seen by recipe, what instruments find by kind. */
import { fieldOf, type AnyValue } from '../model/fields'
import { valueOf, type Subject } from '../model/house'
import type { Site } from '../derive/site'
import type { PathChange } from '../paths/changes'
import { labelOf } from '../texts/labels'
import type { Swap } from './meters'
import { pick, type Random } from './random'
import type { Recipe } from './recipe'
import { RECIPE_ROWS } from './recipes'

export const RECIPES: readonly Recipe[] = RECIPE_ROWS.map(([rule, kind, like, field, value]) => ({
  rule,
  kind,
  like,
  field,
  value,
}))
export const HIDDEN_KINDS = [
  'ground not connected',
  'ground broken in the run',
  'jumper from neutral to ground',
  'hot and neutral reversed',
  'hot and ground reversed',
  'neutral broken',
  'hot broken',
  'bad joint',
  'poor ground',
  'bad contact at a breaker',
  'service neutral failing',
  'main bonding jumper missing',
] as const
export type HiddenKind = (typeof HIDDEN_KINDS)[number]

/** One fault that was put in. */
export interface Injected {
  readonly rule: string
  readonly subject: string
  /** What was done, in plain words. */
  readonly what: string
  readonly kind: HiddenKind | 'to be seen'
}
export interface FactChange {
  readonly subject: string
  readonly field: string
  readonly value: AnyValue
}
/** Which faults are drawn. */
export interface DrawOptions {
  /** Only faults of these rules. */
  readonly rules?: ReadonlySet<string> | undefined
  /** Only what instruments find, of these kinds. */
  readonly kinds?: readonly HiddenKind[]
}

/** What a thing has in common with others that the same fault can befall. */
export function likeness(site: Site, thing: Subject): string {
  switch (thing.kind) {
    case 'outlet':
      return [
        valueOf(thing, 'type'),
        valueOf(thing, 'slots'),
        valueOf(site.roomOf(thing), 'use'),
        valueOf(thing, 'appliance'),
        valueOf(thing, 'ground'),
      ].join('|')
    case 'circuit':
      return [valueOf(thing, 'supplies'), valueOf(thing, 'requiredUse')].join('|')
    case 'segment': {
      const circuit = site.get(thing.parent ?? undefined, 'circuit')
      return [
        valueOf(circuit, 'supplies'),
        valueOf(thing, 'size'),
        valueOf(thing, 'wiring'),
        valueOf(thing, 'conductors'),
      ].join('|')
    }
    case 'breaker':
      return [
        valueOf(thing, 'poles'),
        valueOf(thing, 'protection'),
        valueOf(thing, 'role'),
        valueOf(thing, 'handleTie'),
        ...(isOnAluminum(site, thing) ? ['aluminum'] : []),
      ].join('|')
    case 'enclosure':
      return [valueOf(thing, 'type'), valueOf(thing, 'marking')].join('|')
    case 'bar':
      return [valueOf(thing, 'role'), valueOf(thing, 'isTiedToNeutral')].join('|')
    case 'screw':
      return String(valueOf(thing, 'neutrals'))
    case 'room':
      return String(valueOf(thing, 'use'))
    case 'electrode':
      return String(valueOf(thing, 'type'))
    case 'bond':
      return String(valueOf(thing, 'to'))
    default:
      return thing.kind
  }
}

const isOnAluminum = (site: Site, breaker: Subject<'breaker'>): boolean =>
  site
    .circuitsOf(breaker)
    .some(c => site.children(c, 'segment').some(s => valueOf(s, 'metal') === 'aluminum'))

/** What is put in and where, before it is known to show. */
export interface Draft {
  readonly rule: string
  readonly what: string
  readonly kind: Injected['kind']
  readonly at: string
  readonly facts: readonly FactChange[]
  readonly changes?: readonly PathChange[]
  readonly swap?: Swap
  readonly contact?: number
}

/** @param isAnyAlike whether a thing of the kind is enough: nothing recorded is quite like the sound houses */
export function draw(
  site: Site,
  random: Random,
  { rules, kinds }: DrawOptions,
  isAnyAlike: boolean,
): Draft | undefined {
  if (kinds) return drawHidden(site, random, pick(random, kinds))
  const recipes = rules ? RECIPES.filter(r => rules.has(r.rule)) : RECIPES
  const isHidden = random() < 0.35 || recipes.length === 0
  if (isHidden) {
    const draft = drawHidden(site, random, pick(random, HIDDEN_KINDS))
    return draft && (!rules || rules.has(draft.rule)) ? draft : undefined
  }
  // A rule first, then one of its ways, so that rules with many are not met more often.
  const names = [...new Set(recipes.map(r => r.rule))]
  const rule = pick(random, names)
  const recipe = pick(
    random,
    recipes.filter(r => r.rule === rule),
  )
  const things = site.all[recipe.kind] as readonly Subject[]
  const alike = isAnyAlike ? things : things.filter(t => likeness(site, t) === recipe.like)
  if (alike.length === 0) return undefined
  const thing = pick(random, alike)
  const label = fieldOf(recipe.kind, recipe.field)?.label ?? recipe.field
  const value = typeof recipe.value === 'boolean' ? (recipe.value ? 'yes' : 'no') : recipe.value
  return {
    rule,
    at: thing.id,
    kind: 'to be seen',
    what: `${labelOf(site, thing)}: ${label} ${value}`,
    facts: [{ subject: thing.id, field: recipe.field, value: recipe.value }],
  }
}

function drawHidden(site: Site, random: Random, kind: HiddenKind): Draft | undefined {
  const faces = site.all.outlet.filter(
    o => valueOf(o, 'type') === 'receptacle' && valueOf(o, 'slots') === 'three',
  )
  if (faces.length === 0) return undefined
  const face = pick(random, faces)
  const at = face.id
  const name = labelOf(site, face)
  const fact = (field: string, value: AnyValue): FactChange => ({ subject: at, field, value })
  const draft = (rule: string, more: Partial<Draft>): Draft => ({
    rule,
    at,
    kind,
    what: `${name}: ${kind}`,
    facts: [],
    ...more,
  })
  switch (kind) {
    case 'ground not connected':
      return draft('open-ground-three-slot', { facts: [fact('ground', 'present, not connected')] })
    case 'ground broken in the run':
      return draft('open-ground-three-slot', {
        changes: [{ change: 'open', part: `ground ${at}` }],
      })
    case 'jumper from neutral to ground':
      return draft('bootleg-ground', {
        facts: [fact('ground', 'present, not connected'), fact('hasNeutralGroundJumper', true)],
      })
    case 'hot and neutral reversed':
      return draft('miswire', { swap: 'reversed' })
    case 'hot and ground reversed':
      return draft('miswire', { swap: 'hot and ground' })
    case 'neutral broken':
      return draft('miswire', { changes: [{ change: 'open', part: `neutral ${at}` }] })
    case 'hot broken':
      return draft('miswire', { changes: [{ change: 'open', part: `hot ${at}` }] })
    case 'bad joint': {
      const part = random() < 0.5 ? `hot ${at}` : `neutral ${at}`
      return draft('voltage-drop', {
        changes: [{ change: 'joint', part, ohms: 0.6 + random() * 0.8 }],
      })
    }
    case 'poor ground':
      return draft('open-ground-three-slot', {
        changes: [{ change: 'joint', part: `ground ${at}`, ohms: 8 + random() * 60 }],
      })
    case 'bad contact at a breaker': {
      const circuit = site.get(valueOf(face, 'circuit'), 'circuit')
      const breaker = site.get(valueOf(circuit, 'fedBy'), 'breaker')
      if (!circuit || !breaker) return undefined
      return draft('breaker-hot', {
        at: breaker.id,
        what: `${labelOf(site, breaker)}: ${kind}`,
        contact: 0.15 + random() * 0.2,
        changes: [{ change: 'load', at: circuit.id, amperes: 7 + Math.round(random() * 30) / 10 }],
      })
    }
    case 'main bonding jumper missing': {
      const service = site.all.enclosure.find(e => valueOf(e, 'marking') === 'service disconnect')
      if (!service) return undefined
      const bars = site.children(service, 'bar')
      return draft('main-bond-missing', {
        at: service.id,
        what: `${labelOf(site, service)}: ${kind}`,
        facts: [
          { subject: service.id, field: 'bondMeans', value: 'none' },
          ...bars.map(bar =>
            valueOf(bar, 'role') === 'neutral'
              ? { subject: bar.id, field: 'isBondedToEnclosure', value: false }
              : { subject: bar.id, field: 'isTiedToNeutral', value: false },
          ),
        ],
      })
    }
    case 'service neutral failing': {
      const meter = site.all.enclosure.find(e => valueOf(e, 'fedFrom') === 'utility')
      if (!meter) return undefined
      return draft('service-neutral', {
        at: meter.id,
        what: `${labelOf(site, meter)}: ${kind}`,
        changes: [{ change: 'joint', part: `service ${meter.id} N`, ohms: 0.6 + random() * 3 }],
      })
    }
  }
}
