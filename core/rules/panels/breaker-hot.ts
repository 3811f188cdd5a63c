import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { isSpare } from '../../derive/spare'
import type { Context } from '../../engine/context'
import { builtIn } from '../../derive/fault-protection'
import { whereSeen, type Subject } from '../../model/house'
import { heatOfOne, LEAST_SHARE, TESTED_RISE_C, type Scan } from '../../diagnosis/heat'

/** A breaker runs no hotter than its load explains, against the air, its neighbors and its tested rise. */
export const breakerHot = defineRule({
  id: 'breaker-hot',
  family: 'panels',
  subject: 'breaker',
  isHazard: true,
  title: 'The breaker runs no hotter than its load explains',
  fault: 'Breaker hotter than its load explains',
  consequence: 'A loose or worn joint can burn, or the breaker may not open.',
  cites: [{ section: '110.14' }],
  checks: {
    'too-hot': { danger: 4, says: '{over|Δ°C} over air' },
    'not-fit-for-rating': {
      danger: 3,
      says: 'At {share} % of its rating {over|Δ°C} over air: not fit for its rating',
    },
    'scanned-again': { danger: 3, says: 'Scanned again: {again}' },
  },
  triggers: [],
  remedies: ['re-terminate', 'move-to-sound-space', 'listed-breaker'],
  traps: [
    'Half load and hot points at the terminal or the stab, not at the wire',
    'Breakers with electronics run warm unloaded: compare with their own kind',
    'Without a clamp reading of the same moment a temperature says little',
  ],
  judge(breaker, c) {
    if (isSpare(c.site, breaker, c)) return c.na('Spare')
    const temperatureC = c.ask(breaker.facts.temperatureC)
    if (temperatureC === undefined) return c.undecided('It has not been scanned')
    const panel = c.site.get(breaker.parent ?? undefined, 'enclosure')
    const ambientC = panel && c.ask(panel.facts.ambientC)
    const ratingAmps = c.ask(breaker.facts.ratingAmps)
    const protection = builtIn(breaker, c)
    const circuit = c.site.circuitsOf(breaker)[0]
    const loadAmps = clampedOn(breaker, c)
    if (ambientC === undefined || ratingAmps === undefined || protection === undefined)
      return c.undecided(
        say('{temperatureC|°C}; the air, the rating or the kind of breaker is not known', {
          temperatureC,
        }),
      )
    const isElectronic = protection !== 'standard'
    const scan: Scan = { id: breaker.id, temperatureC, ratingAmps, loadAmps, isElectronic }
    const scans = [scan]
    for (const other of c.site.children(panel!, 'breaker')) {
      if (other === breaker) continue
      const t = c.ask(other.facts.temperatureC)
      const p = builtIn(other, c)
      const r = c.ask(other.facts.ratingAmps)
      if (t !== undefined && p !== undefined && r !== undefined)
        scans.push({
          id: other.id,
          temperatureC: t,
          ratingAmps: r,
          loadAmps: clampedOn(other, c),
          isElectronic: p !== 'standard',
        })
    }
    const heat = heatOfOne(scan, scans, ambientC)
    const share = heat.loadShare === undefined ? undefined : Math.round(heat.loadShare * 100)
    const working = [
      say('{temperatureC|°C} in air of {ambientC|°C}: {over|Δ°C} over air{electronic}, {class}', {
        temperatureC,
        ambientC,
        over: heat.overAirC,
        electronic: isElectronic ? ' beyond its electronics' : '',
        class: heat.airClass,
      }),
      heat.overWarmestC === undefined
        ? say('no neighbor of its kind was scanned')
        : say('{over|Δ°C} over the warmest of its kind: {class}', {
            over: heat.overWarmestC,
            class: heat.likeClass!,
          }),
      ...(heat.atRatedC && loadAmps !== undefined
        ? [
            say(
              'at {load} of {rating} A ({share} %) an estimated {low|Δ°C} to {high|Δ°C} over air at ' +
                'full rating, against {tested|Δ°C}',
              {
                load: loadAmps,
                rating: ratingAmps,
                share: share!,
                low: heat.atRatedC[0],
                high: heat.atRatedC[1],
                tested: TESTED_RISE_C,
              },
            ),
          ]
        : []),
      ...heat.causes.map(x =>
        say('likely: {cause}. {confirm}', { cause: x.cause, confirm: x.confirm }),
      ),
    ]
    const compare = {
      left: temperatureC,
      leftLabel: 'breaker',
      sign: temperatureC > ambientC ? '>' : '=',
      right: ambientC,
      rightLabel: 'air',
      unit: '°C',
    } as const
    if (heat.airClass === 'major')
      return c.fault('too-hot', { over: heat.overAirC }, { working, compare })
    if (loadAmps === undefined)
      return c.undecided(
        say('{temperatureC|°C}; without the load of that moment it says little', { temperatureC }),
        circuit ? circuit.facts.loadAmps : breaker.facts.loadAmps,
        working,
      )
    const isLoaded = heat.loadShare! >= LEAST_SHARE
    if (isLoaded && heat.atRatedC && heat.atRatedC[0] > TESTED_RISE_C)
      return c.fault(
        'not-fit-for-rating',
        {
          share: share!,
          over: heat.overAirC,
        },
        { working, compare },
      )
    if (isLoaded && heat.overAirC <= 10 && heat.atRatedC![1] <= TESTED_RISE_C)
      return c.clear('Within what its load explains', working, compare)
    const again = c.ask(breaker.facts.rescan)
    if (again === undefined)
      return c.undecided(
        isLoaded
          ? 'Warm; a neighbor at like load or millivolts across it under load would tell'
          : say('Scanned at {share} % of its rating: under load it may be another story', {
              share: share!,
            }),
        undefined,
        working,
      )
    if (again === 'as hot after re-torque' || again === 'warmer than similar breakers')
      return c.fault('scanned-again', { again }, { working, compare })
    return c.clear(say('Scanned again: {again}', { again }), working, compare)
  },
})

/** Amperes clamped on the circuit of a breaker, or on the feeder of one that has none, at the moment of the scan. */
function clampedOn(breaker: Subject<'breaker'>, c: Context): number | undefined {
  const circuit = c.site.circuitsOf(breaker)[0]
  // Nobody is sent to clamp a neighbor that feeds nothing recorded.
  return circuit ? c.ask(circuit.facts.loadAmps) : whereSeen(breaker.facts.loadAmps)?.value
}
