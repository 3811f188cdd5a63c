<script setup lang="ts">
import { asTyped, calculatorById, labelOf, quantity, typedIn, valueOf } from '#core'

const job = useJobStore()
/** One breaker scanned, as it is typed: temperatures in the unit shown. */
interface Row {
  readonly id: string
  temperature: number | undefined
  rating: number | undefined
  load: number | undefined
  /** Breakers with electronics run warm with no load. */
  isElectronic?: boolean
}
interface Heat {
  readonly id: string
  readonly overAirC: number
  readonly airClass: string
  readonly overWarmestC?: number
  readonly likeClass?: string
  readonly atRatedC?: readonly [number, number]
  readonly isWeak: boolean
  readonly causes: readonly { readonly cause: string }[]
  readonly next: string
}
const unit = computed(() => typedIn('°C', job.site.units))
const shownIn = (c: number) => asTyped(c, '°C', job.site.units)
const air = ref<number>()
const rows = ref<Row[]>([])
/** What the house has already; more is added by hand. */
const panels = computed(() =>
  job.site.all.enclosure.filter(e => valueOf(e, 'ambientC') !== undefined),
)
function fromPanel(id: string) {
  const panel = job.site.get(id, 'enclosure')
  if (!panel) return
  air.value = shownIn(valueOf(panel, 'ambientC')!)
  rows.value = job.site.children(panel, 'breaker').flatMap(b => {
    const temperature = valueOf(b, 'temperatureC')
    const circuit = job.site.circuitsOf(b)[0]
    return temperature === undefined
      ? []
      : {
          id: labelOf(job.site, b).replace(/^.*?, (?=space )/, ''),
          temperature: shownIn(temperature),
          rating: valueOf(b, 'ratingAmps'),
          load: circuit && valueOf(circuit, 'loadAmps'),
          isElectronic: (valueOf(b, 'protection') ?? 'standard') !== 'standard',
        }
  })
}
watch(
  panels,
  list => {
    if (rows.value.length === 0 && list[0]) fromPanel(list[0].id)
  },
  { immediate: true },
)
function add() {
  const last = rows.value.at(-1)
  rows.value.push({
    id: `breaker ${rows.value.length + 1}`,
    temperature: undefined,
    rating: last?.rating ?? 20,
    load: undefined,
  })
}
function tryExample() {
  air.value = shownIn(29)
  rows.value = [
    { id: 'water heater', temperature: shownIn(55), rating: 30, load: 16 },
    { id: 'kitchen', temperature: shownIn(32), rating: 20, load: undefined },
    { id: 'hall', temperature: shownIn(31), rating: 15, load: undefined },
  ]
}
/** Told apart by their place in the strip: two may have one name. */
const complete = computed(() =>
  rows.value
    .map((r, i) => ({ ...r, key: String(i) }))
    .filter(r => r.temperature !== undefined && r.rating !== undefined),
)
const heat = computed<readonly Heat[]>(() => {
  if (air.value === undefined || complete.value.length === 0) return []
  const scans = complete.value.map(r => ({
    id: r.key,
    temperatureC: unit.value.declared(r.temperature!),
    ratingAmps: r.rating!,
    ...(r.isElectronic && { isElectronic: true }),
    ...(r.load !== undefined && { loadAmps: r.load }),
  }))
  const sum = calculatorById('heat')!
  const parsed = sum.input.safeParse({ ambientC: unit.value.declared(air.value), scans })
  return parsed.success ? (sum.run(parsed.data) as readonly Heat[]) : []
})
const byId = computed(() => new Map(heat.value.map(h => [h.id, h])))
/** Bars are drawn against the hottest, and never against less than 40 K, so that a few degrees stay few. */
const most = computed(() => Math.max(40, ...heat.value.map(h => h.overAirC)))
const isHot = (h: Heat) => ['watch and repair', 'major'].includes(h.airClass)
const CLASS_WORDS: Readonly<Record<string, string>> = {
  none: 'nothing unusual',
  possible: 'a fault is possible',
  probable: 'a fault is probable',
  'watch and repair': 'watch it and repair',
  major: 'repair at once',
}
</script>

<template>
  <div class="heat">
    <div class="top">
      <UFormField :label="`Air at the panel, ${unit.unit}`">
        <UInputNumber v-model="air" :step="1" aria-label="air" />
      </UFormField>
      <UButton
        v-for="p in panels"
        :key="p.id"
        color="neutral"
        variant="outline"
        class="chip"
        @click="fromPanel(p.id)"
        >{{ valueOf(p, 'name') ?? 'panel' }}</UButton
      >
      <UButton variant="link" label="Try an example" @click="tryExample" />
    </div>
    <p v-if="!rows.length" class="soft">
      Scan each breaker with its load on, from the same distance. Add one for each, beginning with
      the warmest.
    </p>
    <ul class="strip">
      <li v-if="rows.length" class="small soft heads" aria-hidden="true">
        <span>Breaker</span><span>Scan, {{ unit.unit }}</span
        ><span>Rating, A</span><span>Load, A</span><span />
      </li>
      <li
        v-for="(r, i) in rows"
        :key="i"
        :class="{ hot: byId.get(String(i)) && isHot(byId.get(String(i))!) }"
      >
        <UInput v-model="rows[i]!.id" class="name" :aria-label="`name of breaker ${i + 1}`" />
        <UInputNumber
          v-model="rows[i]!.temperature"
          :placeholder="unit.unit"
          :aria-label="`temperature of ${r.id}`"
        />
        <UInputNumber
          v-model="rows[i]!.rating"
          :min="5"
          :step="5"
          placeholder="rating, A"
          :aria-label="`rating of ${r.id}`"
        />
        <UInputNumber
          v-model="rows[i]!.load"
          :min="0"
          :step="0.5"
          placeholder="load, A"
          :aria-label="`load of ${r.id}`"
        />
        <UButton
          color="neutral"
          variant="ghost"
          icon="lucide:x"
          :aria-label="`take ${r.id} off`"
          @click="rows.splice(i, 1)"
        />
        <template v-if="byId.get(String(i))">
          <span class="bar"
            ><i :style="{ width: `${Math.max(1, (100 * byId.get(String(i))!.overAirC) / most)}%` }"
          /></span>
          <p class="says">
            <b>{{ quantity(byId.get(String(i))!.overAirC, 'Δ°C', job.site.units) }} over air</b>,
            {{ CLASS_WORDS[byId.get(String(i))!.airClass] ?? byId.get(String(i))!.airClass
            }}<template v-if="(byId.get(String(i))!.overWarmestC ?? 0) > 0">
              · {{ quantity(byId.get(String(i))!.overWarmestC!, 'Δ°C', job.site.units) }} over its
              likes</template
            ><template v-if="byId.get(String(i))!.atRatedC">
              · at full rating
              {{
                byId
                  .get(String(i))!
                  .atRatedC!.map(c => quantity(c, 'Δ°C', job.site.units))
                  .join(' to ')
              }}</template
            ><template v-if="byId.get(String(i))!.isWeak"> · low load: means little</template>
            <span class="soft block"
              ><template v-if="byId.get(String(i))!.causes[0]"
                >First suspect: {{ byId.get(String(i))!.causes[0]!.cause }}. </template
              >{{ byId.get(String(i))!.next }}</span
            >
          </p>
        </template>
      </li>
    </ul>
    <UButton icon="lucide:plus" variant="outline" size="lg" label="Breaker" @click="add" />
  </div>
</template>

<style scoped>
.heat {
  display: grid;
  gap: 0.9rem;
  max-width: 62rem;
  justify-items: start;
}
.top {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: flex-end;
}
.strip {
  width: 100%;
  display: grid;
}
li {
  display: grid;
  grid-template-columns: minmax(8rem, 2fr) repeat(3, minmax(6.5rem, 1fr)) auto;
  gap: 0.4rem 0.6rem;
  align-items: center;
  border-bottom: 1px solid var(--line);
  padding: 0.6rem 0;
}
.bar,
.says {
  grid-column: 1 / -1;
}
.bar {
  height: 10px;
  background: var(--tint);
  border-radius: 2px;
}
.bar i {
  display: block;
  height: 100%;
  border-radius: 2px;
  background: var(--cool);
}
.hot .bar i {
  background: var(--now);
}
.block {
  display: block;
}
.heads {
  padding-bottom: 0.1rem;
}
@media (max-width: 900px) {
  .heads > :first-child {
    grid-column: 1 / -1;
  }
  li {
    grid-template-columns: repeat(3, minmax(0, 1fr)) auto;
  }
  .name {
    grid-column: 1 / -1;
  }
}
</style>
