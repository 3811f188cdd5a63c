import { THEMES, type Theme } from '#core'
import { z } from 'zod'

/** More faults than these seldom all show in one house. */
export const MOST_PUT_IN = 6
const whole = (least: number, most: number, usual: number) =>
  z.coerce.number().int().min(least).max(most).catch(usual)

/** How a round is made of a job, read from the address; what cannot be read there is as usual. */
export function useRoundAddress(usual: {
  minutes: number
  covers: number
  faults: number
  seed: number
}) {
  const RoundQuery = z.object({
    minutes: whole(10, 600, usual.minutes),
    covers: whole(0, 200, usual.covers),
    faults: whole(0, MOST_PUT_IN, usual.faults),
    seed: whole(1, 99_999, usual.seed),
    theme: z.enum(THEMES).catch('anything' satisfies Theme),
  })
  const route = useRoute()
  const setUp = reactive(RoundQuery.parse(route.query))
  const address = computed(() => {
    const { origin, pathname } = useRequestURL()
    const query = new URLSearchParams(
      Object.entries(setUp).map(([name, value]) => [name, String(value)]),
    )
    return `${origin}${pathname}?${query}`
  })
  return { setUp, address }
}
