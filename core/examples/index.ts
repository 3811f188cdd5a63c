import { bakehouse } from './bakehouse'
import { hillside } from './hillside'
import { tarn } from './tarn'

/**
 * The demo houses: job id and house file. Used by seeds, tests and docs alike; the first is the one
 * screens and pictures show.
 */
export const DEMO_HOUSES: readonly { id: string; file: () => object }[] = [
  { id: 'demo-sorrel-bank', file: hillside },
  { id: 'demo-bakehouse', file: bakehouse },
  { id: 'demo-tarn-end', file: tarn },
]
