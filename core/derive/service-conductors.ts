import { valueOf, whereSeen, type Fact, type Subject, type Unseen } from '../model/house'
import type { Column, Size, TableMetal } from '../tables/ampacity'
import { aheadOf } from './ahead'
import { tableMetals } from './allowed'
import type { Site } from './site'
import type { Trail } from './trail'

export interface ServiceConductors {
  size(): Size | undefined
  metal(): TableMetal | undefined
  insulationC(): Column | undefined
  /** In parallel for each phase: one, where nobody says otherwise. 310.10(G). */
  sets(): number
  /** Facts to look at where the answers are not known. */
  readonly facts: {
    readonly size: Fact<Size> | Unseen
    readonly metal: Fact<string> | Unseen
    readonly insulationC: Fact<Column> | Unseen
  }
}

/**
 * The conductors that bring the service into an enclosure: recorded there, or as the run that feeds it from the meter.
 * Each answer is asked for when it is wanted, so that nobody is sent for one that turns nothing.
 */
export function serviceConductors(
  site: Site,
  enclosure: Subject<'enclosure'>,
  asker: Pick<Trail, 'ask'>,
): ServiceConductors {
  const own = enclosure.facts
  const feeder = site.get(valueOf(enclosure, 'fedFrom'), 'feeder')
  // A run with a device ahead of it is a feeder, and no service conductor.
  const walked = feeder && aheadOf(site, feeder)
  const isService = walked?.value !== undefined && walked.value.amps === undefined
  const run = isService ? feeder?.facts : undefined
  // What shows that nothing stands ahead is part of the answer.
  if (run) for (const fact of walked?.rests ?? []) if (fact.state === 'known') asker.ask(fact)
  const seen = <A, B>(here: Fact<A> | Unseen, there: Fact<B> | Unseen | undefined) =>
    there && whereSeen(here) === undefined && whereSeen(there) ? there : here
  const facts = {
    size: seen(own.serviceSize, run?.size),
    metal: seen<string, string>(own.serviceMetal, run?.metal),
    insulationC: seen(own.serviceInsulationC, run?.insulationC),
  }
  const sets = seen(own.serviceSets, run?.sets)
  return {
    facts,
    size: () => asker.ask(facts.size),
    metal() {
      const metals = tableMetals(asker.ask(facts.metal)).map(m => m.metal)
      return new Set(metals).size === 1 ? metals[0] : undefined
    },
    insulationC: () => asker.ask(facts.insulationC),
    sets: () => (whereSeen(sets) && asker.ask(sets)) ?? 1,
  }
}
