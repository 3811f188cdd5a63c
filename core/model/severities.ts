/** Four steps in plain words, worst first. */
export const SEVERITIES = ['make safe now', 'repair', 'upgrade', 'note'] as const
export type Severity = (typeof SEVERITIES)[number]
