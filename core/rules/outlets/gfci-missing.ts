import { defineRule } from '../../engine/rule'
import { say } from '../../engine/say'
import { gfciOf } from '../../derive/fault-protection'
import { placesOf } from '../../derive/places'
import { couldNeedGfci, gfciRequirement, type GfciNeed } from '../../derive/protection'
import type { Context } from '../../engine/context'
import type { FactRef, Subject } from '../../model/house'

/** Ground-fault protection where the place asks for it, by the edition that bears on the receptacle. */
export const gfciMissing = defineRule({
  id: 'gfci-missing',
  family: 'outlets',
  subject: 'outlet',
  title: 'Outlets have ground-fault protection where the place asks for it',
  fault: 'Ground-fault protection missing',
  consequence: 'Someone wet or standing on the ground can be shocked with nothing to cut it off.',
  cites: [
    { section: '210.8(A)' },
    { section: '210.8(D)', from: 2014 },
    { section: '210.8(F)', from: 2020 },
    { section: '406.4(D)(3)' },
  ],
  checks: {
    'not-protected': { danger: 3, says: '{text}: required since {since}, and nothing protects it' },
  },
  triggers: ['replaced', 'new'],
  remedies: ['gfci-here', 'gfci-first-outlet', 'gfci-breaker', 'protect-beside-panel'],
  traps: [
    'A device ahead of it, or the breaker, protects it too',
    'A plug-in tester cannot trip a GFCI where there is no ground: use its own button',
    'Receptacles of 250 V and hard-wired outlets outdoors from 2020; lighting in crawl spaces ' +
      'from 2017; the dishwasher from 2014',
    'Replacing the receptacle brings the rule of today, whatever the house’s age',
  ],
  judge(outlet, c) {
    const type = c.ask(outlet.facts.type)
    if (type === 'junction box' || type === 'switch' || type === 'alarm')
      return c.na('Not an outlet the rule is about')
    const room = c.site.get(c.ask(outlet.facts.room), 'room')
    const places = placesOf(room, c)
    if (type !== undefined && isExempt(places, type, c.site.edition))
      return c.na(say('The {edition} edition asks for none here', { edition: c.site.edition }))
    const gfci = gfciOf(c.site, outlet)
    c.rest(gfci.rests)
    if (gfci.value !== undefined && gfci.value !== 'none')
      return c.clear(
        gfci.value === 'own'
          ? 'Protection in the device'
          : gfci.value === 'breaker'
            ? 'Protection in the breaker'
            : 'Protected by a device ahead',
      )
    const before = c.mark()
    const need = room && places.length > 0 ? earliest(outlet, places, room, c) : undefined
    if (need && need.since === undefined && !need.isOpen)
      return type === undefined
        ? c.undecided()
        : c.na(say('The {edition} edition asks for none here', { edition: c.site.edition }))
    if (type === undefined || !need || need.since === undefined || gfci.value === undefined)
      return c.undecided(
        need?.since === undefined
          ? 'Whether the place asks for it has not been settled'
          : say('Required here ({text}); whether it is there has not been settled', {
              text: need.text,
            }),
      )
    return c.fault(
      'not-protected',
      {
        text: need.text,
        since: need.since,
      },
      {
        since: need.since,
        ...(need.isSinceOpen && { isSinceOpen: true }),
        ...((need.openSince ?? Infinity) < need.since && {
          olderIf: unseenOnce(c.askedSince(before)),
        }),
      },
    )
  },
})

/** No row bears on an outlet of this kind in any of these places; false while the places are not known. */
function isExempt(places: readonly string[], type: string, edition: number): boolean {
  for (const place of places) if (couldNeedGfci(place, type, edition)) return false
  return places.length > 0
}

/** What nobody has seen of these, each once. */
const unseenOnce = (facts: readonly FactRef[]): FactRef[] => [
  ...new Map(
    facts.filter(f => f.state !== 'known').map(f => [`${f.subject} ${f.field}`, f]),
  ).values(),
]

/** The oldest requirement of all the places a room is; open where another of them could bring an older one. */
function earliest(
  outlet: Subject<'outlet'>,
  places: readonly string[],
  room: Subject<'room'>,
  c: Context,
): GfciNeed {
  const [only] = places
  if (places.length === 1 && only !== undefined) return gfciRequirement(outlet, only, room, c)
  const needs = places.map(place => gfciRequirement(outlet, place, room, c))
  const [first] = needs
    .flatMap(need => (need.since === undefined ? [] : [{ ...need, since: need.since }]))
    .sort((a, b) => a.since - b.since)
  const isOpen = needs.some(n => n.isOpen)
  const opens = needs.flatMap(n => n.openSince ?? [])
  const [openSince] = opens.sort((a, b) => a - b)
  return first
    ? { ...first, isOpen, openSince }
    : { since: undefined, text: '', isOpen, openSince, isSinceOpen: false }
}
