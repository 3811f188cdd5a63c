import { absent } from '../../model/house'
import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import type { Subject } from '../../model/house'
import type { Context } from '../../engine/context'
import type { Verdict } from '../../engine/verdict'

/** Insulation of cables whose make tells it; about 1985 NM became NM-B. 334.112. */
const BY_CABLE: Readonly<Record<string, number>> = {
  'NM-B': 90,
  NM: 60,
  'cloth NM': 60,
  'knob-and-tube': 60,
  'old spiral armor': 60,
}

/** A luminaire marked for 90 °C supply conductors is not hung on old 60 °C insulation. */
export const luminaireSupplyTemperature = defineRule({
  id: 'luminaire-supply-temperature',
  family: 'outlets',
  subject: 'outlet',
  title: 'The conductors are rated for the heat of the luminaire they feed',
  fault: 'Luminaire too hot for its supply conductors',
  consequence: 'The insulation above the luminaire bakes, cracks and falls off.',
  cites: [{ section: '410.21' }, { section: '410.68' }],
  checks: {
    'supply-too-hot-for-conductors': {
      danger: 2,
      says: 'It demands {wants} °C conductors and hangs on {coolest} °C',
    },
  },
  triggers: ['replaced', 'new'],
  remedies: ['cooler-luminaire'],
  traps: [
    'NM from before about 1985 counts as 60 °C',
    'No marking in the canopy means 60 °C will do',
  ],
  judge(outlet, c) {
    const type = c.ask(outlet.facts.type)
    if (type !== undefined && type !== 'luminaire') return c.na('Not a luminaire')
    const wants = c.ask(outlet.facts.supplyMarkC)
    if (wants === undefined || type === undefined)
      return c.undecided('The marking in its canopy has not been read')
    if (wants === 60) return c.clear('Any conductors will do')
    return byItsRuns(outlet, wants, c)
  },
})

/** What demands more than 60 °C, by the conductors that may reach it. */
function byItsRuns(outlet: Subject<'outlet'>, wants: number, c: Context): Verdict {
  const circuit = c.site.get(c.ask(outlet.facts.circuit), 'circuit')
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
      isRating: true,
    }) as const
  // On one run there is no doubt which conductors reach it; on several, the old one may be elsewhere.
  if (runs.length === 1 && coolest < wants)
    return c.fault('supply-too-hot-for-conductors', { wants, coolest }, { compare: compare('<') })
  if (runs.length === 0 || ratings.includes(undefined) || coolest < wants) {
    const open = c.asked.filter(f => f.state !== 'known')
    return c.undecided(
      say('It demands {wants} °C; the insulation that reaches it is not settled', { wants }),
      open.length > 0 ? open : [circuit ? absent(circuit, 'label') : absent(outlet, 'circuit')],
    )
  }
  return c.clear(
    say('It demands {wants} °C and has {coolest} °C', { wants, coolest }),
    [],
    compare(coolest > wants ? '>' : '='),
  )
}

function insulationOf(run: Subject<'segment'>, c: Context): number | undefined {
  const wiring = c.ask(run.facts.wiring)
  const known = wiring === undefined ? undefined : BY_CABLE[wiring]
  return known ?? c.ask(run.facts.insulationC)
}
