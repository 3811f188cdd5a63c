/** Common enclosures, so that a panel is drawn in one tap and corrected from there. */
export interface Template {
  id: string
  name: string
  note: string
  facts: Record<string, string | number>
  bars: readonly string[]
}

const panel = (
  spaces: number,
  more: Record<string, string | number>,
): Record<string, string | number> => ({
  type: 'panel',
  place: 'indoors',
  spaces,
  bus: 'single phase',
  numbering: 'odd left, even right',
  mainKind: 'main breaker',
  ...more,
})
const BOTH = ['neutral', 'ground'] as const
export const TEMPLATES: readonly Template[] = [
  {
    id: '200-40',
    name: '40 spaces, 200 A main',
    note: 'newer house',
    facts: panel(40, { mainAmps: 200 }),
    bars: BOTH,
  },
  {
    id: '200-30',
    name: '30 spaces, 200 A main',
    note: 'house of the nineties',
    facts: panel(30, { mainAmps: 200 }),
    bars: BOTH,
  },
  {
    id: '150-24',
    name: '24 spaces, 150 A main',
    note: '',
    facts: panel(24, { mainAmps: 150 }),
    bars: BOTH,
  },
  {
    id: '100-20',
    name: '20 spaces, 100 A main',
    note: '',
    facts: panel(20, { mainAmps: 100 }),
    bars: BOTH,
  },
  {
    id: '100-12',
    name: '12 spaces, 100 A main',
    note: 'small or older house',
    facts: panel(12, { mainAmps: 100 }),
    bars: ['common'],
  },
  {
    id: 'lugs-12',
    name: '12 spaces, main lugs',
    note: 'sub-panel',
    facts: panel(12, { mainKind: 'main lugs' }),
    bars: BOTH,
  },
  {
    id: 'lugs-6',
    name: '6 spaces, main lugs',
    note: 'shed, garage',
    facts: panel(6, { mainKind: 'main lugs' }),
    bars: BOTH,
  },
  {
    id: 'lugs-42',
    name: '42 spaces, main lugs',
    note: 'behind an outside disconnect',
    facts: panel(42, { mainKind: 'main lugs' }),
    bars: BOTH,
  },
  {
    id: 'split-16',
    name: 'split bus, 16 spaces',
    note: 'before the early eighties',
    facts: panel(16, { mainKind: 'split bus', bus: 'split bus' }),
    bars: ['common'],
  },
  {
    id: 'three-18',
    name: 'three-phase enclosure, 18 spaces',
    note: 'former shop or workshop',
    facts: panel(18, { bus: 'three phase', mainAmps: 100 }),
    bars: BOTH,
  },
  {
    id: 'outside',
    name: 'outside disconnect, 200 A',
    note: '',
    facts: { type: 'disconnect', place: 'outdoors', mainKind: 'main breaker', mainAmps: 200 },
    bars: [],
  },
  { id: 'meter', name: 'meter', note: '', facts: { type: 'meter', place: 'outdoors' }, bars: [] },
]
