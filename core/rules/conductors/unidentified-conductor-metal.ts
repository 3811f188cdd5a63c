import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { tableMetals } from '../../derive/allowed'

const SILVER_INSIDE = new Set(['aluminum', 'copper-clad aluminum'])

/** What a conductor is taken for agrees with its cut end: color of the surface or of the jacket proves no metal. */
export const unidentifiedConductorMetal = defineRule({
  id: 'unidentified-conductor-metal',
  family: 'conductors',
  subject: 'segment',
  title: 'The conductor is the metal it is taken for',
  fault: 'Conductor is not the metal it is taken for',
  consequence: 'Breaker, devices and splices may all be wrong for the metal that is really there.',
  cites: [
    { section: '110.14' },
    { section: '310.104', from: 2011, until: 2019 },
    { section: '310.10', until: 2010 },
    { section: '310.3', from: 2020 },
  ],
  checks: {
    'other-metal-inside': {
      danger: 3,
      says: 'Taken for {metal}; under the surface it is of {core}',
    },
    'surface-unlike-core': {
      danger: [1, 3],
      says: 'Taken for {metal}; {surface} outside and {core} inside',
    },
  },
  isHazard: true,
  triggers: [],
  remedies: ['identify-metal'],
  traps: [
    'Copper outside and silver inside is copper-clad aluminum',
    'Silver outside and copper inside is tinned copper of the rubber years',
    'The color of a jacket says nothing about gauge or metal',
  ],
  judge(segment, c) {
    const metal = c.ask(segment.facts.metal)
    const core = c.ask(segment.facts.core)
    const surface = c.ask(segment.facts.surface)
    if (core === undefined)
      return c.undecided('A cut end or a light scrape decides, and none has been seen')
    const candidates = tableMetals(metal)
    if (metal === undefined) return c.undecided('What it is taken for has not been recorded')
    if (candidates.length > 1)
      return c.undecided(say('{metal} with a {core} core', { metal, core }), [
        segment.facts.metal,
        ...c.asked.filter(f => f.state !== 'known'),
      ])
    const isSilverInside = core === 'silver color'
    if (SILVER_INSIDE.has(metal) !== isSilverInside) {
      return c.fault(
        'other-metal-inside',
        { metal, core },
        {
          working: [
            say(
              isSilverInside
                ? 'silver inside: aluminum, or copper-clad aluminum if the surface is copper'
                : 'copper inside: copper, or tinned copper if the surface is silver',
            ),
          ],
        },
      )
    }
    if (surface === undefined)
      return c.undecided(say('The core is {core}; the surface tells plain from coated', { core }))
    const isCoated = (surface === 'silver color') !== isSilverInside
    const shouldBeCoated = metal === 'tinned copper' || metal === 'copper-clad aluminum'
    if (isCoated !== shouldBeCoated)
      return c.fault(
        'surface-unlike-core',
        { metal, surface, core },
        { danger: isSilverInside ? 3 : 1 },
      )
    return c.clear(say('{surface} outside, {core} inside: {metal}', { surface, core, metal }))
  },
})
