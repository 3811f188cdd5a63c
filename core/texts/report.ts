import { fieldOf, type Kind } from '../model/fields'
import { factsOf } from '../model/house'
import type { Site } from '../derive/site'
import { labelOf } from './labels'

/** Cautions that go with every report. */
export const CAUTIONS: readonly string[] = [
  'Work on or near live parts is for qualified people. The line side of a main stays live with the main off.',
  'A cover can be energized: it is tested before it is touched. Absence of voltage is verified ' +
    'with a tester proved before and after.',
  'Many of these jobs need a permit and a licensed person. Local law and the local inspector decide.',
  'These are second opinions on what was seen on the day, not an approval of the installation.',
]

/** Who should look at a finding, by how urgent it is. */
export const WHO = {
  'make safe now': 'A licensed electrician, now; keep the part off or out of reach until then',
  repair: 'A licensed electrician',
  upgrade: 'A licensed electrician, at the next work on it',
  note: 'For the owner to know',
} as const

/** Everything that was tried and could not be seen, with its reason. */
export function limitationsOf(site: Site): { where: string; fact: string; reason: string }[] {
  const list: { where: string; fact: string; reason: string }[] = []
  for (const subject of site.house.subjects.values()) {
    for (const fact of factsOf(subject)) {
      if (fact.state === 'blocked')
        list.push({
          where: labelOf(site, subject),
          fact: fieldOf(subject.kind as Kind, fact.field)?.label ?? fact.field,
          reason: fact.reason,
        })
    }
  }
  return list
}
