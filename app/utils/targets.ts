import { labelOf, type Field, type Kind, type Site, type Subject } from '#core'

/** Things a reference may point at, by label. */
export function refTargets(site: Site, field: Field): { id: string; label: string }[] {
  if (field.type !== 'ref' && field.type !== 'refs') return []
  return field.kinds
    .flatMap(kind => site.all[kind as Kind] as Subject[])
    .map(s => ({ id: s.id, label: labelOf(site, s) }))
    .sort((a, b) => a.label.localeCompare(b.label, 'en', { numeric: true }))
}
