import type { Subject } from '../model/house'
import { always, defineRemedy, type Remedy } from './remedy'

/** Remedies at outlets, boxes and equipment. */
export const OUTLET_REMEDIES: readonly Remedy[] = [
  defineRemedy({ id: 'afci-breaker', title: 'Combination AFCI or dual-function breaker', gives: 'The whole circuit protected', steps: ['Read the panel label for a listed one', 'Neutral of this circuit to the breaker', 'Test by its own button'],
    judge(desk) {
      const circuit = desk.site.get(desk.ask((desk.subject as Subject<'point'>).facts.circuit), 'circuit')
      const breaker = desk.site.get(circuit && desk.ask(circuit.facts.fedBy), 'breaker')
      const panel = desk.site.get(breaker?.parent ?? undefined, 'enclosure')
      const state = panel && desk.ask(panel.facts.protectiveBreakers)
      if (state === 'none made') return desk.refused('None are made for this panel line')
      const shares = circuit && desk.ask(circuit.facts.sharesNeutralWith)
      if (shares !== undefined && shares.length > 0 && breaker && desk.ask(breaker.facts.poles) === 1) return desk.offered('Of the two-pole type: the circuit shares its neutral')
      return state === undefined ? desk.conditional('If one is listed for this panel') : desk.offered('One listed for this panel')
    } }),
  defineRemedy({ id: 'afci-first-outlet', title: 'AFCI receptacle as first outlet', gives: 'Everything after it protected; the run to it only under the listed conditions', steps: ['AFCI receptacle as first outlet', 'Test, and record what was measured'], judge: always('At this place') }),
  defineRemedy({ id: 'swap-line-load', title: 'Swap line and load', gives: 'A device that is dead when it trips', steps: ['Swap line and load', 'Test, and record what was measured'], judge: always('At this place') }),
  defineRemedy({ id: 'move-protection', title: 'Move the protection where it can be reached', gives: 'A reset that can be reached', steps: ['Move the protection where it can be reached', 'Test, and record what was measured'], judge: always('At this place') }),
  defineRemedy({ id: 'cut-ground-on', title: 'Take the onward ground off', gives: 'No frame tied to nothing', steps: ['Take the onward ground off', 'Test, and record what was measured'], judge: always('At this place') }),
  defineRemedy({ id: 'rewire-device', title: 'Wire it right', gives: 'Hot, neutral and ground in their places', steps: ['Wire it right', 'Test, and record what was measured'], judge: always('At this place') }),
  defineRemedy({ id: 'tr-receptacle', title: 'Tamper-resistant receptacle', gives: 'Shutters', steps: ['Tamper-resistant receptacle', 'Test, and record what was measured'], judge: always('At this place') }),
  defineRemedy({ id: 'wr-receptacle', title: 'Weather-resistant receptacle and in-use cover', gives: 'A device made for outdoors', steps: ['Weather-resistant receptacle and in-use cover', 'Test, and record what was measured'], judge: always('At this place') }),
  defineRemedy({ id: 'larger-box', title: 'Larger old-work box, surface extension, or protection at the breaker', gives: 'Room', steps: ['Larger old-work box, surface extension, or protection at the breaker', 'Test, and record what was measured'], judge: always('At this place') }),
  defineRemedy({ id: 'box-extender', title: 'Listed box extender', gives: 'A box that comes to the surface', steps: ['Listed box extender', 'Test, and record what was measured'], judge: always('At this place') }),
  defineRemedy({ id: 'fit-cover', title: 'Fit the cover', gives: 'Nothing live in reach', steps: ['Fit the cover', 'Test, and record what was measured'], judge: always('At this place') }),
  defineRemedy({ id: 'box-for-splice', title: 'Put the splice in a box that stays accessible', gives: 'A failing splice kept in', steps: ['Put the splice in a box that stays accessible', 'Test, and record what was measured'], judge: always('At this place') }),
  defineRemedy({ id: 'open-up-box', title: 'Make the box accessible: blank plate, or move it', gives: 'A splice that can be found', steps: ['Make the box accessible: blank plate, or move it', 'Test, and record what was measured'], judge: always('At this place') }),
  defineRemedy({ id: 'closet-light', title: 'Enclosed luminaire with its clearance', gives: 'Nothing hot near what is stored', steps: ['Enclosed luminaire with its clearance', 'Test, and record what was measured'], judge: always('At this place') }),
  defineRemedy({ id: 'fit-disconnect', title: 'Disconnect within sight', gives: 'A unit that can be made safe where it stands', steps: ['Disconnect within sight', 'Test, and record what was measured'], judge: always('At this place') }),
  defineRemedy({ id: 'split-circuit', title: 'Give the other outlets a circuit of their own', gives: 'A required circuit for itself', steps: ['Give the other outlets a circuit of their own', 'Test, and record what was measured'], judge: always('At this place') }),
  defineRemedy({ id: 'add-outlet', title: 'Add the outlet', gives: 'No extension cords', steps: ['Add the outlet', 'Test, and record what was measured'], judge: always('At this place') }),
  defineRemedy({ id: 'fit-alarms', title: 'Alarms where required, interconnected', gives: 'Somebody is woken', steps: ['Alarms where required, interconnected', 'Test, and record what was measured'], judge: always('At this place') }),
  defineRemedy({ id: 'knob-and-tube-care', title: 'Leave it free, protect it, write the conditions down', gives: 'Lawful to stay: at most 15 A, protected, never buried or extended', steps: ['Leave it free, protect it, write the conditions down', 'Test, and record what was measured'], judge: always('At this place') }),
  defineRemedy({ id: 'four-wire-circuit', title: 'Four-wire circuit', gives: 'A frame on a grounding conductor', steps: ['Four-wire circuit', 'Test, and record what was measured'], judge: always('At this place') }),
]
