/** A sentence begins with a capital. @example sentenceCase('allowed to remain') // 'Allowed to remain' */
export const sentenceCase = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)
import type { Purpose } from '#core'

/** What a visit is for, as it is said on a screen. */
export const PURPOSE_NAMES: Readonly<Record<Purpose, string>> = {
  purchase: 'Purchase',
  insurance: 'Insurance',
  rental: 'Rental',
  service: 'Service call',
  remodel: 'Remodel',
  final: 'Final inspection',
}
