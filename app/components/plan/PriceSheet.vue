<script lang="ts">
export type PriceSheetProps = Record<never, never>
</script>

<script setup lang="ts">
import { REMEDIES, SAMPLE_PRICES, type PriceBook } from '#core'
import { pricesFromCsv, pricesToCsv, PRICE_TITLES } from '#shared/price-csv'

const isOpen = defineModel<boolean>('open', { required: true })
const book = defineModel<PriceBook>({ required: true })
const words = ref('')
const problems = ref<readonly string[]>([])
type General = keyof typeof PRICE_TITLES
const GENERAL = Object.keys(PRICE_TITLES) as General[]
const inDollars = (g: General) => !g.endsWith('Permille')
const shownGeneral = (g: General) => (inDollars(g) ? book.value[g] / 100 : book.value[g] / 10)
function setGeneral(g: General, value: number | null | undefined) {
  if (typeof value !== 'number' || value < 0) return
  change({ [g]: Math.round(value * (inDollars(g) ? 100 : 10)) })
}
/** Whoever changes a figure has a book of their own: no sample any more. */
function change(part: Partial<PriceBook>) {
  const name = book.value.isSample ? 'Our prices' : book.value.name
  book.value = { ...book.value, ...part, name, isSample: false }
}
const lines = computed(() =>
  REMEDIES.filter(r => r.title.toLowerCase().includes(words.value.trim().toLowerCase())).map(r => ({
    id: r.id,
    title: r.title,
    ...(book.value.remedies[r.id] ?? book.value.other),
    isOther: book.value.remedies[r.id] === undefined,
  })),
)
function setLine(id: string, part: Partial<PriceBook['other']>) {
  const line = book.value.remedies[id] ?? book.value.other
  change({ remedies: { ...book.value.remedies, [id]: { ...line, ...part } } })
}
function save() {
  const url = URL.createObjectURL(new Blob([pricesToCsv(book.value)], { type: 'text/csv' }))
  const link = Object.assign(document.createElement('a'), {
    href: url,
    download: 'corvit-prices.csv',
  })
  link.click()
  setTimeout(() => URL.revokeObjectURL(url), 1000)
}
async function take(file: File | null | undefined) {
  if (!file) return
  const read = pricesFromCsv(await file.text(), book.value)
  if ('problems' in read) {
    problems.value = read.problems
      .slice(0, 6)
      .map(p => `${p.path}: expected ${p.expected}, found ${p.found}`)
    return
  }
  problems.value = []
  book.value = read.book
}
</script>

<template>
  <USlideover
    v-model:open="isOpen"
    title="Price book"
    :description="
      book.isSample
        ? 'Made-up round figures, for trying things out. Put in your own before you quote.'
        : book.name
    "
  >
    <template #body>
      <div class="prices" data-testid="prices">
        <div class="acts">
          <UButton
            icon="lucide:download"
            color="neutral"
            variant="outline"
            label="Save as CSV"
            @click="save"
          />
          <UFileUpload
            v-slot="{ open }"
            accept=".csv,text/csv"
            class="min-h-0"
            @update:model-value="f => take(f as File | null)"
          >
            <UButton
              icon="lucide:upload"
              color="neutral"
              variant="outline"
              label="Read a CSV"
              @click="open()"
            />
          </UFileUpload>
          <UButton
            v-if="!book.isSample"
            color="neutral"
            variant="ghost"
            label="Back to the sample"
            @click="book = SAMPLE_PRICES"
          />
        </div>
        <ul v-if="problems.length" class="wrong" role="alert">
          <li v-for="p in problems" :key="p">{{ p }}</li>
          <li class="soft">Nothing was taken over.</li>
        </ul>
        <div class="general">
          <UFormField
            v-for="g in GENERAL"
            :key="g"
            :label="inDollars(g) ? PRICE_TITLES[g] : PRICE_TITLES[g].replace('per thousand', '%')"
          >
            <UInputNumber
              :model-value="shownGeneral(g)"
              :min="0"
              :step="1"
              :aria-label="PRICE_TITLES[g]"
              @update:model-value="v => setGeneral(g, v)"
            />
          </UFormField>
        </div>
        <UInput
          v-model="words"
          icon="lucide:search"
          placeholder="remedy"
          aria-label="search remedies"
        />
        <ul class="lines">
          <li class="small soft heads" aria-hidden="true">
            <span>Work</span><span>Materials, $</span><span>Minutes</span>
          </li>
          <li v-for="l in lines" :key="l.id">
            <span :class="{ soft: l.isOther }">{{ l.title }}</span>
            <UInputNumber
              :model-value="l.material / 100"
              :min="0"
              :step="1"
              :aria-label="`materials for ${l.title}, dollars`"
              @update:model-value="v => setLine(l.id, { material: Math.round((v ?? 0) * 100) })"
            />
            <UInputNumber
              :model-value="l.minutes"
              :min="0"
              :step="5"
              :aria-label="`minutes for ${l.title}`"
              @update:model-value="v => setLine(l.id, { minutes: v ?? 0 })"
            />
          </li>
        </ul>
        <p class="small soft">Gray: not priced by itself, counted as any other work.</p>
      </div>
    </template>
  </USlideover>
</template>

<style scoped>
.prices {
  display: grid;
  gap: 1rem;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
.general {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(9.5rem, 1fr));
  gap: 0.7rem;
}
.lines li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 7.5rem 7.5rem;
  gap: 0.5rem;
  align-items: center;
  border-bottom: 1px solid var(--line);
  padding: 0.3rem 0;
}
.heads {
  text-align: center;
}
.heads span:first-child {
  text-align: left;
}
.wrong {
  color: var(--now);
}
</style>
