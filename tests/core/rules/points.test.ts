import { outlet, type Node } from '../../support/house'
import { ruleTable } from '../../support/rule-table'

const row = (name: string, house: Node, more: { why?: string; missing?: string[] } = {}) => ({
  name,
  house,
  on: 'p',
  ...more,
})
const bare = { lamps: 'open ground', ground: 'none' }
/** A point fed through a GFCI receptacle, from its load terminals or not. */
const after = (point: Node, fromLoad: boolean | undefined, first: Node = { protection: 'GFCI' }) =>
  outlet(
    {
      after: 'first',
      protection: 'none',
      ...(fromLoad !== undefined && { isFedFromLoadSide: fromLoad }),
      ...point,
    },
    { others: [{ id: 'first', type: 'receptacle', slots: 'three', after: 'panel', ...first }] },
  )

ruleTable('open-ground-three-slot', {
  clear: [
    row('ground on the device, tester agrees', outlet({ ground: 'connected', lamps: 'correct' })),
    row('ground measured good', outlet({ ground: 'connected', groundOhms: 0.3 })),
    row(
      'ground measured poor: present all the same',
      outlet({ ground: 'connected', lamps: 'correct', groundOhms: 3 }),
    ),
    row(
      'conduit proved by impedance',
      outlet(
        { ground: 'metal raceway or armour', groundOhms: 0.4 },
        { circuit: { segments: [{ wiring: 'steel conduit' }] } },
      ),
    ),
    row(
      'no ground, GFCI here, marked',
      outlet({ ...bare, protection: 'GFCI', isMarkedNoGround: true }),
    ),
    row(
      'after a GFCI, both markings',
      after({ ...bare, isMarkedNoGround: true, isMarkedGfci: true }, true),
    ),
    row(
      'two slots, no ground in the box, 1955',
      outlet({ slots: 'two', ground: 'none', year: 1955 }, { premises: { yearBuilt: 1950 } }),
    ),
  ],
  fault: [
    row(
      'old spiral armour, however it measures',
      outlet(
        { ground: 'metal raceway or armour', groundOhms: 0.6, protection: 'none', after: 'panel' },
        { circuit: { segments: [{ wiring: 'old spiral armour' }] } },
      ),
    ),
    row(
      'a wire in the box, 50 Ω behind it',
      outlet({ ground: 'connected', groundOhms: 50, protection: 'none', after: 'panel' }),
    ),
    row(
      'nothing in the box, no protection',
      outlet({ ...bare, protection: 'none', after: 'panel' }),
    ),
    row(
      'loose in the box: same fault, other remedy',
      outlet({ ground: 'present, not connected', protection: 'none', after: 'panel' }),
    ),
    row(
      'reads correct but the box has no ground',
      outlet({ lamps: 'correct', ground: 'none', protection: 'none', after: 'panel' }),
    ),
    row('two slots though a ground is there', outlet({ slots: 'two', ground: 'connected' })),
    row('two slots in 1975', outlet({ slots: 'two', ground: 'none', year: 1975 })),
    row('fed from the line side of a GFCI', after(bare, false)),
    row(
      'conduit with a path of 3 Ω',
      outlet({
        ground: 'metal raceway or armour',
        groundOhms: 3,
        protection: 'none',
        after: 'panel',
      }),
    ),
  ],
  undecided: [
    row('GFCI here, marking not looked for', outlet({ ...bare, protection: 'GFCI' }), {
      missing: ['isMarkedNoGround'],
    }),
    row(
      'tester says correct, box unopened',
      outlet({ lamps: 'correct', protection: 'none', after: 'panel' }),
      { missing: ['ground'] },
    ),
    row(
      'wire in the box, never tested',
      outlet({ ground: 'connected', protection: 'none', after: 'panel' }),
    ),
    row(
      'conduit not proved',
      outlet({
        ground: 'metal raceway or armour',
        lamps: 'correct',
        protection: 'none',
        after: 'panel',
      }),
      { missing: ['groundOhms'] },
    ),
    row('two slots, box unopened', outlet({ slots: 'two', year: 1955 }), { missing: ['ground'] }),
    row(
      'two slots, no ground, circuit of unknown year',
      outlet({ slots: 'two', ground: 'none' }, { premises: { yearBuilt: 1950 } }),
      { missing: ['year'] },
    ),
    row('no ground; line or load side not seen', after(bare, undefined), {
      missing: ['isFedFromLoadSide'],
    }),
    row(
      'no ground; order along the circuit not known',
      outlet(
        { ...bare, protection: 'none' },
        { others: [{ id: 'first', type: 'receptacle', protection: 'GFCI' }] },
      ),
      { missing: ['after'] },
    ),
    row(
      'no ground; breaker not read',
      outlet(
        { ...bare, protection: 'none', after: 'panel' },
        { breaker: { protection: undefined } },
      ),
      { missing: ['protection'] },
    ),
  ],
  inapplicable: [
    row('a switch', outlet({ type: 'switch' })),
    row(
      'no ground, GFCI here, unmarked: a finding of its own',
      outlet({ ...bare, protection: 'GFCI', isMarkedNoGround: false }),
    ),
    row(
      'after a GFCI on its load side, one marking only',
      after({ ...bare, isMarkedNoGround: true, isMarkedGfci: false }, true),
    ),
    row(
      'GFCI breaker, unmarked',
      outlet(
        { ...bare, protection: 'none', after: 'panel', isMarkedNoGround: false },
        { breaker: { protection: 'dual' } },
      ),
    ),
    row(
      'went dead with the GFCI, unmarked',
      outlet({ ...bare, protection: 'none', gfciTest: 'goes dead', isMarkedNoGround: false }),
    ),
    row('a 240 V receptacle', outlet({ ...bare, slots: '240 V', protection: 'none' })),
  ],
})

const here = { ...bare, protection: 'GFCI' }
ruleTable('missing-marking', {
  clear: [
    row('GFCI here, marked', outlet({ ...here, isMarkedNoGround: true })),
    row(
      'downstream, both markings',
      after({ ...bare, isMarkedNoGround: true, isMarkedGfci: true }, true),
    ),
  ],
  fault: [
    row('GFCI here, unmarked', outlet({ ...here, isMarkedNoGround: false })),
    row(
      'downstream, one marking only',
      after({ ...bare, isMarkedNoGround: true, isMarkedGfci: false }, true),
    ),
    row(
      'GFCI breaker, no marking',
      outlet(
        { ...bare, protection: 'none', isMarkedNoGround: false },
        { breaker: { protection: 'GFCI' } },
      ),
    ),
  ],
  undecided: [
    row('marking not looked for', outlet(here), { missing: ['isMarkedNoGround'] }),
    row('second marking not looked for', after({ ...bare, isMarkedNoGround: true }, true), {
      missing: ['isMarkedGfci'],
    }),
    row('ground not settled', outlet({ lamps: 'correct', protection: 'GFCI' }), {
      missing: ['ground'],
    }),
  ],
  inapplicable: [
    row('it has a ground', outlet({ ...here, lamps: 'correct', ground: 'connected' })),
    row('nothing protects it', outlet({ ...bare, protection: 'none', after: 'panel' })),
    row('two slots', outlet({ slots: 'two' })),
  ],
})

ruleTable('bootleg-ground', {
  clear: [
    row('box open, no jumper', outlet({ lamps: 'correct', hasNeutralGroundJumper: false })),
    row('neutral rises under load', outlet({ lamps: 'correct', neutralGroundRiseV: 1.8 })),
    row('ground terminal open', outlet({ lamps: 'open ground' })),
  ],
  fault: [
    row('jumper seen', outlet({ lamps: 'correct', hasNeutralGroundJumper: true })),
    row(
      'reversed bootleg: 120 V on the ground',
      outlet({ lamps: 'correct', groundToEarthV: 119 }),
      { why: 'live frame' },
    ),
  ],
  undecided: [
    row('tester says correct', outlet({ lamps: 'correct' }), {
      missing: ['hasNeutralGroundJumper'],
    }),
    row('no rise under load proves nothing', outlet({ lamps: 'correct', neutralGroundRiseV: 0 }), {
      missing: ['hasNeutralGroundJumper'],
    }),
    row(
      'ground terminal dead to earth proves nothing',
      outlet({ lamps: 'correct', groundToEarthV: 0.4 }),
    ),
  ],
  inapplicable: [
    row('two slots', outlet({ slots: 'two' })),
    row('luminaire', outlet({ type: 'luminaire' })),
  ],
})
ruleTable('device-worn', {
  clear: [row('sound', outlet({ condition: 'sound' }))],
  fault: [
    row('scorched', outlet({ condition: 'scorched' })),
    row('loose', outlet({ condition: 'loose grip' })),
  ],
  undecided: [row('not looked at', outlet({}))],
  inapplicable: [row('junction box', outlet({ type: 'junction box' }))],
})
