import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import type { Subject } from '../../model/house'
import type { Context } from '../../engine/context'

/** Insulation of cables whose make tells it; about 1985 NM became NM-B. 334.112. */
const BY_CABLE: Readonly<Record<string, number>> = {
  'NM-B': 90,
  NM: 60,
  'cloth NM': 60,
  'knob-and-tube': 60,
  'old spiral armour': 60,
}

/** A luminaire marked for 90 °C supply conductors is not hung on old 60 °C insulation. */
export const luminaireSupplyTemperature = defineRule({
  id: 'luminaire-supply-temperature',
  family: 'points',
  subject: 'point',
  title: 'The conductors bear the heat of the luminaire they feed',
  fault: 'Luminaire too hot for its supply conductors',
  cites: [{ section: '410.21' }, { section: '410.68' }],
  triggers: ['replaced', 'new'],
  remedies: ['cooler-luminaire'],
  traps: [
    'NM from before about 1985 counts as 60 °C',
    'No marking in the canopy means 60 °C will do',
  ],
  judge(point, c) {
    const type = c.ask(point.facts.type)
    if (type !== undefined && type !== 'luminaire') return c.na(say('Not a luminaire'))
    const wants = c.ask(point.facts.supplyMarkC)
    if (wants === undefined || type === undefined)
      return c.undecided(say('The marking in its canopy has not been read'))
    if (wants === 60) return c.clear(say('Any conductors will do'))
    const circuit = c.site.get(c.ask(point.facts.circuit), 'circuit')
    const runs = circuit ? c.site.children(circuit, 'segment') : []
    const ratings = runs.map(run => insulationOf(run, c))
    const coolest = Math.min(...ratings.map(r => r ?? Infinity))
    const compare = (sign: '<' | '>' | '=') =>
      ({
        left: coolest,
        leftLabel: 'insulation',
        sign,
        right: wants,
        rightLabel: 'demanded',
        unit: '°C',
      }) as const
    // On one run there is no doubt which conductors reach it; on several, the old one may be elsewhere.
    if (runs.length === 1 && coolest < wants)
      return c.fault(
        say('It demands {wants} °C conductors and hangs on {coolest} °C', { wants, coolest }),
        { danger: 2, compare: compare('<') },
      )
    if (runs.length === 0 || ratings.includes(undefined) || coolest < wants) {
      const open = c.asked.filter(f => f.state !== 'known')
      return c.undecided(
        say('It demands {wants} °C; the insulation that reaches it is not settled', { wants }),
        [],
        open.length > 0
          ? open
          : [
              {
                state: 'unseen',
                subject: circuit?.id ?? point.id,
                field: circuit ? 'label' : 'circuit',
              },
            ],
      )
    }
    return c.clear(
      say('It demands {wants} °C and has {coolest} °C', { wants, coolest }),
      [],
      compare(coolest > wants ? '>' : '='),
    )
  },
})

function insulationOf(run: Subject<'segment'>, c: Context): number | undefined {
  const wiring = c.ask(run.facts.wiring)
  const known = wiring === undefined ? undefined : BY_CABLE[wiring]
  return known ?? c.ask(run.facts.insulationC)
}
