/** Four steps in plain words, worst first. */
export const SEVERITIES = [
  'make safe now',
  'repair',
  'upgrade at next work',
  'for the record',
] as const
export type Severity = (typeof SEVERITIES)[number]
