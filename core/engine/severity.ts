import type { Site } from '../derive/site'
import { valueOf, type Subject } from '../model/house'
import { say, type Step } from './say'
import type { Severity } from '../model/severities'
import type { Standing } from './standing'
import type { Danger, Failure } from './verdict'

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
/** Why a failure is as severe as it is, by its danger. */
const WHY: Readonly<Record<Danger, string>> = {
  4: 'It can kill or start a fire as it is',
  3: 'It breaks a protection the installation relies on',
  2: 'It weakens a protection',
  1: 'It is a matter of labels, neatness or wear',
}

/**
 * Severity is danger × exposure: danger 1 to 4 from the rule, exposure 1.25 where people stand on wet or grounded
 * ground. From 4 make safe now, from 2.5 repair, from 1.5 upgrade; no score lies between 1.25 and 2. What is allowed
 * to remain is not a repair, unless it is lethal; what work being done now requires is at least one; how strictly it
 * is reported is a setting.
 */
export function severityOf(
  failure: Failure,
  standing: Standing,
  subject: Subject,
  site: Site,
): { severity: Severity; why: Step } {
  const room = subject.kind === 'outlet' ? valueOf(site.roomOf(subject), 'use') : undefined
  const place = subject.kind === 'enclosure' ? valueOf(subject, 'place') : undefined
  const isExposed = (room !== undefined && WET.has(room)) || place === 'outdoors'
  const exposure = isExposed ? EXPOSED : 1
  const score = failure.danger * exposure
  let severity: Severity =
    score >= 4 ? 'make safe now' : score >= 2.5 ? 'repair' : score >= 2 ? 'upgrade' : 'note'
  // Work that is being done now is done right: what it brings along is a repair, not a wish.
  if (standing.kind === 'required by this work' && severity === 'upgrade') severity = 'repair'
  const where = isExposed ? `, where people stand on wet or grounded floors (${room ?? place})` : ''
  const why = say(`${WHY[failure.danger]}{where}`, { where })
  if (standing.kind === 'allowed to remain' && severity !== 'make safe now') {
    const most = severityOfAllowed(site)
    if (severity !== 'note') severity = most
  }
  return { severity, why }
}

/** What is allowed to remain is an upgrade, or a note where the assessor only mentions such things. */
export const severityOfAllowed = (site: Site): Severity =>
  valueOf(site.premises, 'allowedToRemain') === 'mention' ? 'note' : 'upgrade'
