import { oneOutlet, type Node } from '../../support/house'
import { ruleTable } from '../../support/rule-table'

const row = (name: string, house: Node, more: { why?: string; missing?: string[] } = {}) => ({
  name,
  house,
  on: 'p',
  ...more,
})
const bare = { lamps: 'open ground', ground: 'none' }
/** An outlet fed through a GFCI receptacle, from its load terminals or not. */
const after = (outlet: Node, fromLoad: boolean | undefined, first: Node = { protection: 'GFCI' }) =>
  oneOutlet(
    {
      after: 'first',
      protection: 'none',
      ...(fromLoad !== undefined && { isFedFromLoadSide: fromLoad }),
      ...outlet,
    },
    { others: [{ id: 'first', type: 'receptacle', slots: 'three', after: 'panel', ...first }] },
  )

ruleTable('open-ground-three-slot', {
  clear: [
    row(
      'ground on the device, tester agrees',
      oneOutlet({ ground: 'connected', lamps: 'correct' }),
    ),
    row('ground measured good', oneOutlet({ ground: 'connected', groundOhms: 0.3 })),
    row(
      'conduit proved by impedance',
      oneOutlet(
        { ground: 'metal raceway or armor', groundOhms: 0.4 },
        { circuit: { segments: [{ wiring: 'steel conduit' }] } },
      ),
    ),
    row(
      'no ground, GFCI here, marked',
      oneOutlet({ ...bare, protection: 'GFCI', isMarkedNoGround: true }),
    ),
    row(
      'after a GFCI, both markings',
      after({ ...bare, isMarkedNoGround: true, isMarkedGfci: true }, true),
    ),
    row(
      'two slots, no ground in the box, 1955',
      oneOutlet({ slots: 'two', ground: 'none', year: 1955 }, { premises: { yearBuilt: 1950 } }),
    ),
  ],
  fault: [
    row(
      'old spiral armor, however it measures',
      oneOutlet(
        { ground: 'metal raceway or armor', groundOhms: 0.6, protection: 'none', after: 'panel' },
        { circuit: { segments: [{ wiring: 'old spiral armor' }] } },
      ),
    ),
    row(
      'a wire in the box, 50 Ω behind it',
      oneOutlet({ ground: 'connected', groundOhms: 50, protection: 'none', after: 'panel' }),
    ),
    row(
      'nothing in the box, no protection',
      oneOutlet({ ...bare, protection: 'none', after: 'panel' }),
    ),
    row(
      'loose in the box: same fault, other remedy',
      oneOutlet({ ground: 'present, not connected', protection: 'none', after: 'panel' }),
    ),
    row(
      'reads correct but the box has no ground',
      oneOutlet({ lamps: 'correct', ground: 'none', protection: 'none', after: 'panel' }),
    ),
    row('two slots though a ground is there', oneOutlet({ slots: 'two', ground: 'connected' })),
    row('two slots in 1975', oneOutlet({ slots: 'two', ground: 'none', year: 1975 })),
    row('fed from the line side of a GFCI', after(bare, false)),
    row(
      'conduit with a path of 3 Ω',
      oneOutlet({
        ground: 'metal raceway or armor',
        groundOhms: 3,
        protection: 'none',
        after: 'panel',
      }),
    ),
  ],
  undecided: [
    row(
      'ground measured poor: a breaker may not open on it',
      oneOutlet({ ground: 'connected', lamps: 'correct', groundOhms: 3 }),
    ),
    row('GFCI here, marking not looked for', oneOutlet({ ...bare, protection: 'GFCI' }), {
      missing: ['isMarkedNoGround'],
    }),
    row(
      'tester says correct, box unopened',
      oneOutlet({ lamps: 'correct', protection: 'none', after: 'panel' }),
      { missing: ['ground'] },
    ),
    row(
      'wire in the box, never tested',
      oneOutlet({ ground: 'connected', protection: 'none', after: 'panel' }),
    ),
    row(
      'conduit not proved',
      oneOutlet({
        ground: 'metal raceway or armor',
        lamps: 'correct',
        protection: 'none',
        after: 'panel',
      }),
      { missing: ['groundOhms'] },
    ),
    row('two slots, box unopened', oneOutlet({ slots: 'two', year: 1955 }), {
      missing: ['ground'],
    }),
    row(
      'two slots, no ground, circuit of unknown year',
      oneOutlet({ slots: 'two', ground: 'none' }, { premises: { yearBuilt: 1950 } }),
      { missing: ['year'] },
    ),
    row('no ground; line or load side not seen', after(bare, undefined), {
      missing: ['isFedFromLoadSide'],
    }),
    row(
      'no ground; order along the circuit not known',
      oneOutlet(
        { ...bare, protection: 'none' },
        { others: [{ id: 'first', type: 'receptacle', protection: 'GFCI' }] },
      ),
      { missing: ['after'] },
    ),
    row(
      'no ground; breaker not read',
      oneOutlet(
        { ...bare, protection: 'none', after: 'panel' },
        { breaker: { protection: undefined } },
      ),
      { missing: ['protection'] },
    ),
  ],
  inapplicable: [
    row('a switch', oneOutlet({ type: 'switch' })),
    row(
      'no ground, GFCI here, unmarked: a finding of its own',
      oneOutlet({ ...bare, protection: 'GFCI', isMarkedNoGround: false }),
    ),
    row(
      'after a GFCI on its load side, one marking only',
      after({ ...bare, isMarkedNoGround: true, isMarkedGfci: false }, true),
    ),
    row(
      'GFCI breaker, unmarked',
      oneOutlet(
        { ...bare, protection: 'none', after: 'panel', isMarkedNoGround: false },
        { breaker: { protection: 'dual' } },
      ),
    ),
    row(
      'went dead with the GFCI, unmarked',
      oneOutlet({ ...bare, protection: 'none', gfciTest: 'goes dead', isMarkedNoGround: false }),
    ),
    row('a 240 V receptacle', oneOutlet({ ...bare, slots: '240 V', protection: 'none' })),
  ],
})

const here = { ...bare, protection: 'GFCI' }
ruleTable('missing-marking', {
  clear: [
    row('GFCI here, marked', oneOutlet({ ...here, isMarkedNoGround: true })),
    row(
      'downstream, both markings',
      after({ ...bare, isMarkedNoGround: true, isMarkedGfci: true }, true),
    ),
  ],
  fault: [
    row('GFCI here, unmarked', oneOutlet({ ...here, isMarkedNoGround: false })),
    row(
      'downstream, one marking only',
      after({ ...bare, isMarkedNoGround: true, isMarkedGfci: false }, true),
    ),
    row(
      'GFCI breaker, no marking',
      oneOutlet(
        { ...bare, protection: 'none', isMarkedNoGround: false },
        { breaker: { protection: 'GFCI' } },
      ),
    ),
  ],
  undecided: [
    row('marking not looked for', oneOutlet(here), { missing: ['isMarkedNoGround'] }),
    row('second marking not looked for', after({ ...bare, isMarkedNoGround: true }, true), {
      missing: ['isMarkedGfci'],
    }),
    row('ground not settled', oneOutlet({ lamps: 'correct', protection: 'GFCI' }), {
      missing: ['ground'],
    }),
  ],
  inapplicable: [
    row('it has a ground', oneOutlet({ ...here, lamps: 'correct', ground: 'connected' })),
    row('nothing protects it', oneOutlet({ ...bare, protection: 'none', after: 'panel' })),
    row('two slots', oneOutlet({ slots: 'two' })),
  ],
})

ruleTable('bootleg-ground', {
  clear: [
    row('box open, no jumper', oneOutlet({ lamps: 'correct', hasNeutralGroundJumper: false })),
    row('neutral rises under load', oneOutlet({ lamps: 'correct', neutralGroundRiseV: 1.8 })),
    row('ground terminal open', oneOutlet({ lamps: 'open ground' })),
  ],
  fault: [
    row('jumper seen', oneOutlet({ lamps: 'correct', hasNeutralGroundJumper: true })),
    row(
      'reversed bootleg: 120 V on the ground',
      oneOutlet({ lamps: 'correct', groundToReferenceV: 119 }),
      { why: 'live frame' },
    ),
  ],
  undecided: [
    row('tester says correct', oneOutlet({ lamps: 'correct' }), {
      missing: ['hasNeutralGroundJumper'],
    }),
    row(
      'no rise under load proves nothing',
      oneOutlet({ lamps: 'correct', neutralGroundRiseV: 0 }),
      {
        missing: ['hasNeutralGroundJumper'],
      },
    ),
    row(
      'ground terminal dead to earth proves nothing',
      oneOutlet({ lamps: 'correct', groundToReferenceV: 0.4 }),
    ),
  ],
  inapplicable: [
    row('two slots', oneOutlet({ slots: 'two' })),
    row('luminaire', oneOutlet({ type: 'luminaire' })),
  ],
})
ruleTable('device-worn', {
  clear: [row('sound', oneOutlet({ condition: 'sound' }))],
  fault: [
    row('scorched', oneOutlet({ condition: 'scorched' })),
    row('loose', oneOutlet({ condition: 'loose grip' })),
  ],
  undecided: [row('not looked at', oneOutlet({}))],
  inapplicable: [row('junction box', oneOutlet({ type: 'junction box' }))],
})
