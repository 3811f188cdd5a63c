import { roleOf } from '../../derive/service-role'
import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { serviceConductors } from '../../derive/service-conductors'
import {
  sizeIndex,
  standardRatings,
  tableAmpacity,
  wholeDwellingRating,
} from '../../tables/ampacity'
import { sizeName } from '../../tables/allowed-device'

/** From the 2017 edition on it does not matter which supply it is. */
const EITHER = 'either supply'

/** The main is no larger than the service conductors bear: the dwelling sizes of 310.12, or the ordinary table. */
export const serviceConductor = defineRule({
  id: 'service-conductor',
  family: 'service',
  subject: 'enclosure',
  title: 'The main is no larger than the service conductors allow',
  fault: 'Main too big for the service conductors',
  consequence: 'The service conductors can overheat while the main stays on.',
  cites: [
    { section: '230.90' },
    { section: '230.42' },
    { section: '310.15(B)(6)', until: 2010 },
    { section: '310.15(B)(7)', from: 2011, until: 2019 },
    { section: '310.12', from: 2020 },
  ],
  checks: {
    'main-over-service-conductors': {
      danger: 3,
      says: 'A {amps} A main on service conductors rated for {allowed} A',
    },
  },
  triggers: ['replaced', 'new'],
  remedies: ['smaller-main', 'replace-service-conductors'],
  traps: [
    'The reduced dwelling sizes hold for the service itself',
    'On two legs of 208Y/120 the reduced sizes came only with the 2017 edition',
  ],
  judge(enclosure, c) {
    const role = roleOf(c.site, enclosure)
    c.rest(role.rests)
    if (role.value === undefined)
      return c.undecided('Which enclosure is the service disconnect is not settled')
    if (role.value !== 'service') return c.na('Not the service disconnect')
    const kind = c.ask(enclosure.facts.mainKind)
    const amps = c.ask(enclosure.facts.mainAmps)
    const service = serviceConductors(c.site, enclosure, c)
    const size = service.size()
    const metal = service.metal()
    if (kind === 'main lugs' || kind === 'split bus')
      return c.na('No single main: the mains together answer for it')
    if (kind === undefined || amps === undefined || size === undefined || metal === undefined)
      return c.undecided('The main or the service conductors have not been read')
    // The dwelling sizes were of 120/240 V only before the 2017 edition.
    const supply = c.site.edition < 2017 ? c.ask(c.site.premises.facts.supply) : EITHER
    const insulation = service.insulationC()
    const terminals = sizeIndex(size) > sizeIndex('1') || amps > 100 ? 75 : 60
    const sets = service.sets()
    const column = Math.min(terminals, insulation ?? terminals) as 60 | 75
    const ordinary = sets * (tableAmpacity(size, metal, column, c.site.edition) ?? 0)
    const rounded = standardRatings(c.site.edition).find(r => r >= ordinary) ?? ordinary
    // The dwelling sizes are of single conductors.
    const isDwelling = insulation !== 60 && sets === 1
    const dwelling = isDwelling ? wholeDwellingRating(size, metal) : undefined
    const most = Math.max(rounded, dwelling ?? rounded)
    const compare = (allowed: number) =>
      ({
        left: amps,
        leftLabel: 'main',
        sign: amps > allowed ? '>' : amps < allowed ? '<' : '=',
        right: allowed,
        rightLabel: 'service conductors',
        unit: 'A',
      }) as const
    const working = [
      say(
        '{size} {metal}: {ordinary} A by the table, next size {rounded} A; as dwelling service {dwelling} A',
        { size: sizeName(size), metal, ordinary, rounded, dwelling: dwelling ?? 'not listed' },
      ),
    ]
    if (
      insulation === undefined &&
      amps <= most &&
      amps >
        (standardRatings(c.site.edition).find(
          r => r >= sets * (tableAmpacity(size, metal, 60, c.site.edition) ?? 0),
        ) ?? 0)
    )
      return c.undecided(
        'Allowed with 75 °C insulation, not with 60 °C',
        service.facts.insulationC,
        working,
      )
    if (amps <= rounded)
      return c.clear(
        say('{amps} A is no more than {allowed} A', { amps, allowed: rounded }),
        working,
        compare(rounded),
      )
    if (dwelling !== undefined && amps <= dwelling) {
      if (supply === undefined)
        return c.undecided(
          'Allowed on 120/240 V, not on 208Y/120 V before the 2017 edition',
          undefined,
          working,
        )
      if (supply !== '208Y/120 V')
        return c.clear(
          say('{amps} A is no more than the {allowed} A of a dwelling service', {
            amps,
            allowed: dwelling,
          }),
          working,
          compare(dwelling),
        )
    }
    const allowed = supply === '208Y/120 V' ? rounded : most
    return c.fault(
      'main-over-service-conductors',
      { amps, allowed },
      { working, compare: compare(allowed) },
    )
  },
})
