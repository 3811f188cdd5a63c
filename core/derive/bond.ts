import { whereSeen, type Subject } from '../model/house'
import { Question, type Kept, type Site } from './site'
import { Trail, type Walked } from './trail'

const NEUTRAL_BONDS = new Question<Walked<boolean>>()
const SHARED_BARS = new Question<Walked<boolean>>()

/**
 * Whether the neutral is joined to the enclosure metal, by a means of its own or by the bar it
 * lands on. 250.24, 250.142.
 */
export function neutralBondOf(site: Site, enclosure: Subject<'enclosure'>): Walked<boolean> {
  return remembered(site.kept(NEUTRAL_BONDS), enclosure.id, () => walkBond(site, enclosure))
}

function walkBond(site: Site, enclosure: Subject<'enclosure'>): Walked<boolean> {
  const trail = new Trail()
  const means = trail.ask(enclosure.facts.bondMeans)
  let value: boolean | undefined = means === undefined ? undefined : means !== 'none'
  // A wire that somebody followed to no other end bonds nothing.
  const { jumperLandsOn } = enclosure.facts
  if (means === 'wire jumper' && whereSeen(jumperLandsOn) && trail.ask(jumperLandsOn) === 'nothing')
    value = false
  if (value !== true) {
    for (const bar of site.children(enclosure, 'bar')) {
      const role = trail.ask(bar.facts.role)
      const isBonded = trail.ask(bar.facts.isBondedToEnclosure)
      // A bar for grounds bonds the neutral where a jumper or busbar joins it to the neutral bar.
      const isNeutral =
        role === 'neutral' || role === 'common' ? true : trail.ask(bar.facts.isTiedToNeutral)
      if (isBonded === true && isNeutral === true) return trail.found(true)
      if (isBonded !== false && isNeutral !== false) value = undefined
    }
  }
  return trail.found(value)
}

/** Whether neutrals and grounds share a bar in an enclosure. */
export function sharesBar(site: Site, enclosure: Subject<'enclosure'>): Walked<boolean> {
  return remembered(site.kept(SHARED_BARS), enclosure.id, () => walkBars(site, enclosure))
}

function walkBars(site: Site, enclosure: Subject<'enclosure'>): Walked<boolean> {
  const trail = new Trail()
  const landings = trail.ask(enclosure.facts.landings)
  if (landings === 'on a common bar') return trail.found(true)
  const bars = site.children(enclosure, 'bar')
  let value: boolean | undefined = landings === undefined && bars.length === 0 ? undefined : false
  for (const bar of bars) {
    const role = trail.ask(bar.facts.role)
    if (role === 'common') return trail.found(true)
    let neutrals = 0
    let grounds = 0
    let isCounted = true
    for (const screw of site.children(bar, 'screw')) {
      const n = trail.ask(screw.facts.neutrals)
      const g = trail.ask(screw.facts.grounds)
      if (n === undefined || g === undefined) isCounted = false
      neutrals += n ?? 0
      grounds += g ?? 0
    }
    if ((neutrals > 0 && (grounds > 0 || role === 'ground')) || (grounds > 0 && role === 'neutral'))
      return trail.found(true)
    if (role === undefined || !isCounted) value = undefined
  }
  return trail.found(value)
}

function remembered<T>(known: Kept<T>, key: string, walk: () => T): T {
  let found = known.get(key)
  if (found === undefined) known.set(key, (found = walk()))
  return found
}
