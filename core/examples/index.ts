import { hillside } from './hillside'

/** The demo houses: job id and house file. Used by seeds, tests and docs alike. */
export const DEMO_HOUSES: readonly { id: string, file: () => object }[] = [{ id: 'demo-sorrel-bank', file: hillside }]
