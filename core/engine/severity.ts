import type { Site } from '../derive/site'
import { valueOf, type Subject } from '../model/house'
import { say, type Step } from './say'
import type { Severity } from '../model/severities'
import type { Standing } from './standing'
import type { Fault } from './verdict'

export { SEVERITIES, type Severity } from '../model/severities'

const WET = new Set([
  'bathroom',
  'kitchen',
  'laundry',
  'outdoors',
  'garage',
  'basement, unfinished',
  'crawl space',
])
const EXPOSED = 1.25

/**
 * Severity is danger × exposure: danger 1 to 4 from the rule, exposure 1.25 where people stand on wet or earthed
 * ground. From 4 make safe now, from 2.5 repair, from 1.5 upgrade. What is allowed to stay is not a repair,
 * unless it is lethal; how strictly it is reported is the desk's choice.
 */
export function severityOf(
  fault: Fault,
  standing: Standing,
  subject: Subject,
  site: Site,
): { severity: Severity; why: Step } {
  const room =
    subject.kind === 'point' ? valueOf(site.roomOf(subject as Subject<'point'>), 'use') : undefined
  const place =
    subject.kind === 'enclosure' ? valueOf(subject as Subject<'enclosure'>, 'place') : undefined
  const isExposed = (room !== undefined && WET.has(room)) || place === 'outdoors'
  const exposure = isExposed ? EXPOSED : 1
  const score = fault.danger * exposure
  let severity: Severity =
    score >= 4
      ? 'make safe now'
      : score >= 2.5
        ? 'repair'
        : score >= 1.5
          ? 'upgrade at next work'
          : 'for the record'
  const why = say('danger {danger} of 4 × exposure {exposure}{where} = {score}', {
    danger: fault.danger,
    exposure,
    where: isExposed ? ` (${room ?? place})` : '',
    score,
  })
  if (standing.kind === 'allowed to stay' && severity !== 'make safe now') {
    severity =
      valueOf(site.premises, 'allowedToStay') === 'mention'
        ? 'for the record'
        : severity === 'for the record'
          ? severity
          : 'upgrade at next work'
  }
  return { severity, why }
}
