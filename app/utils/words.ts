/** A sentence begins with a capital. @example sentenceCase('allowed to remain') // 'Allowed to remain' */
export const sentenceCase = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)
