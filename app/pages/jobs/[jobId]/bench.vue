<script setup lang="ts">
import {
  quantity,
  factAt,
  labelOf,
  CALCULATORS,
  calculatorById,
  READING_FIELDS,
  valueOf,
  type AnyValue,
  type Diagnosis,
  type Drop,
  type Identity,
  type Subject,
} from '#core'

const { job, problem, isLoading, load } = useOpenJob()
const route = useRoute()
const router = useRouter()
const ORDER = [
  'diagnose',
  'trace',
  'ampacity',
  'boxfill',
  'identify',
  'heat',
  'voltage-drop',
  'dwelling-load',
  'gfci-time',
  'working-space',
  'trip-estimate',
]
const id = computed(() =>
  ORDER.includes(String(route.query.calculator)) ? String(route.query.calculator) : 'diagnose',
)
const sum = computed(() => calculatorById(id.value)!)
const values = ref<Record<string, unknown>>({})
const from = ref(String(route.query.from ?? ''))
watch(id, () => {
  values.value = {}
  from.value = ''
})
const isAsked = computed(() => Object.values(values.value).some(v => v !== undefined))
const parsed = computed(() =>
  sum.value.input.safeParse(benchInput(id.value, values.value, job.site.units)),
)
const out = computed(() =>
  isAsked.value && parsed.value.success
    ? (sum.value.run(parsed.value.data) as Record<string, unknown>)
    : undefined,
)
const refused = computed(() =>
  isAsked.value && !parsed.value.success ? parsed.value.error.issues[0] : undefined,
)
const labelFor = (path: readonly PropertyKey[]) =>
  BENCH[id.value]?.find(
    f => path.map(String).join('.').includes(f.key) || path.map(String).includes(f.key),
  )?.label ?? path.map(String).join('.')
const diagnosis = computed(() =>
  id.value === 'diagnose'
    ? (out.value as unknown as (Omit<Diagnosis, 'answer'> & { answer: string | null }) | undefined)
    : undefined,
)
const identity = computed(() =>
  id.value === 'identify'
    ? (out.value as unknown as
        | (Omit<Identity, 'metal' | 'size'> & { metal: string | null; size: string | null })
        | undefined)
    : undefined,
)
const boxOut = computed(() =>
  id.value === 'boxfill'
    ? (out.value as unknown as
        | {
            lines: { what: string; count: number; each: number; volume: number }[]
            total: number
            volume: number
            fits: boolean
          }
        | undefined)
    : undefined,
)
/** A missing input is asked for; a wrong one is said to be wrong. */
const refusal = computed(() => {
  const issue = refused.value
  if (!issue) return ''
  const name = labelFor(issue.path)
  return values.value[String(issue.path.at(-1))] === undefined
    ? `Still needed: ${name.toLowerCase()}`
    : `${name}: ${issue.message}`
})
const nextKey = computed(
  () => diagnosis.value?.next?.reading ?? identity.value?.next?.evidence ?? '',
)

/** What the run does not explain of a drop under load. */
const joint = computed(() => {
  const drop = id.value === 'diagnose' ? (out.value?.drop as Drop | null | undefined) : undefined
  const isOdd = (diagnosis.value?.unexplained.length ?? 0) > 0
  return drop && !isOdd && drop.excessVolts > 0 ? drop : undefined
})
const showsAllFits = ref(false)
/** What fits, likeliest first; two faults at once make the list long, and the first few say what to look for. */
const fits = computed(() =>
  (diagnosis.value?.states ?? [])
    .filter(s => diagnosis.value!.fitting.includes(s.state))
    .slice(0, showsAllFits.value ? undefined : 6),
)
/** Things of the house a sum can take its inputs from. */
const sources = computed<{ id: string; label: string }[]>(() => {
  const list: readonly Subject[] =
    id.value === 'ampacity' || id.value === 'identify'
      ? [...job.site.all.segment, ...job.site.all.feeder]
      : id.value === 'diagnose' || id.value === 'boxfill'
        ? job.site.all.outlet
        : id.value === 'working-space'
          ? job.site.all.enclosure
          : []
  return list
    .map(s => ({ id: s.id, label: labelOf(job.site, s) }))
    .sort((a, b) => a.label.localeCompare(b.label, 'en', { numeric: true }))
})
/** Fields of the house that are inputs of a sum, both ways. */
const SAME: Record<string, readonly (readonly [input: string, field: string])[]> = {
  diagnose: Object.entries(READING_FIELDS) as [string, string][],
  identify: [
    ['surface', 'surface'],
    ['core', 'core'],
    ['legend', 'legend'],
    ['isSoft', 'isSoft'],
    ['bareMm', 'bareMm'],
    ['size', 'size'],
    ['year', 'year'],
  ],
  ampacity: [
    ['size', 'size'],
    ['metal', 'metal'],
    ['wiring', 'wiring'],
    ['insulationC', 'insulationC'],
    ['terminalsC', 'terminalsC'],
    ['carriesWholeDwelling', 'carriesWholeDwelling'],
  ],
  boxfill: [
    ['volumeIn3', 'boxVolumeIn3'],
    ['grounds.count', 'groundsInBox'],
    ['hasInternalClamps', 'hasInternalClamps'],
  ],
  'working-space': [
    ['depthIn', 'workingDepthIn'],
    ['widthIn', 'workingWidthIn'],
    ['heightIn', 'workingHeightIn'],
    ['equipmentWidthIn', 'widthIn'],
  ],
}
function take(source: string) {
  from.value = source
  const subject = job.house.subjects.get(source)
  if (!subject) return
  const next: Record<string, unknown> = {}
  for (const [input, field] of SAME[id.value] ?? []) {
    const fact = factAt(subject, field)
    const options = BENCH[id.value]!.find(f => f.key === input)?.options
    if (
      fact?.state === 'known' &&
      (!options || options.includes(fact.value as string)) &&
      !Array.isArray(fact.value)
    )
      next[input] = fact.value
  }
  if (id.value === 'boxfill') {
    const size = valueOf(subject as Subject<'outlet'>, 'largestInBox')
    const count = valueOf(subject as Subject<'outlet'>, 'conductorsInBox')
    if (size && count !== undefined) next[`conductors.${size}`] = count
    if (['receptacle', 'switch'].includes(valueOf(subject as Subject<'outlet'>, 'type') ?? ''))
      next.yokes = 1
  }
  if (id.value === 'ampacity') next.edition = job.site.edition
  values.value = next
}
onMounted(() => {
  if (from.value) take(from.value)
})
watch(
  () => job.isReady,
  () => {
    if (from.value && !isAsked.value) take(from.value)
  },
)
const GRADE = {
  diagnose: 'measured',
  identify: 'seen',
  'working-space': 'measured',
  ampacity: 'seen',
  boxfill: 'seen',
} as const
function putBack() {
  const subject = from.value
  const drafts = (SAME[id.value] ?? [])
    .filter(([input, field]) => values.value[input] !== undefined && field !== 'year')
    .map(([input, field]) => ({
      act: 'note' as const,
      subject,
      field,
      value: values.value[input] as AnyValue,
      grade: GRADE[id.value as keyof typeof GRADE],
    }))
  if (id.value === 'identify' && identity.value?.metal)
    drafts.push({
      act: 'note',
      subject,
      field: 'metal',
      value: identity.value.metal,
      grade: 'seen',
    })
  if (drafts.length) job.record(drafts)
  isKept.value = true
}
const isKept = ref(false)
watch(
  values,
  () => {
    isKept.value = false
  },
  { deep: true },
)
const heat = computed(() =>
  job.site.all.enclosure
    .filter(e => valueOf(e, 'ambientC') !== undefined)
    .flatMap(e => {
      const scans = job.site.children(e, 'breaker').flatMap(b =>
        valueOf(b, 'temperatureC') === undefined || valueOf(b, 'ratingAmps') === undefined
          ? []
          : [
              {
                id: labelOf(job.site, b),
                temperatureC: valueOf(b, 'temperatureC')!,
                ratingAmps: valueOf(b, 'ratingAmps')!,
                loadAmps: valueOf(job.site.circuitsOf(b)[0], 'loadAmps'),
                isElectronic: (valueOf(b, 'protection') ?? 'standard') !== 'standard',
              },
            ],
      )
      return scans.length
        ? (calculatorById('heat')!.run({ ambientC: valueOf(e, 'ambientC')!, scans }) as {
            id: string
            overAirC: number
            airClass: string
            overWarmestC?: number
            likeClass?: string
            atRatedC?: [number, number]
            loadShare?: number
            isWeak: boolean
            causes: { cause: string }[]
            next: string
          }[])
        : []
    }),
)
const isNumbers = (x: unknown): x is [number, number] => Array.isArray(x) && x.length === 2
const span = (x: unknown) =>
  isNumbers(x) ? (x[0] === x[1] ? `${x[0]}` : `${x[0]} or ${x[1]}`) : String(x)
const WORDS: Record<string, string> = {
  terminals: 'terminal marking',
  insulation: 'insulation rating',
  metal: 'metal',
  isCappedAt60: 'wiring method',
  feedsSeveralReceptacles: 'what it feeds',
}
</script>

<template>
  <AppShell title="Bench" :subtitle="valueOf(job.site.premises, 'name')">
    <PageState :is-loading="isLoading" :problem="problem" @again="load">
      <nav class="tabs no-print" aria-label="calculators">
        <button
          v-for="s in ORDER.filter(x => CALCULATORS.some(y => y.id === x))"
          :key="s"
          type="button"
          class="tab"
          :aria-current="s === id"
          @click="router.replace({ query: { calculator: s } })"
        >
          {{ BENCH_NAMES[s] }}
        </button>
      </nav>
      <TraceBoard v-if="id === 'trace'" />
      <section v-else-if="id === 'heat'" class="heat">
        <p v-if="!heat.length" class="soft">
          Record the air at a panel and the temperature of its breakers (Panel, touch a breaker):
          they are compared here.
        </p>
        <table v-else>
          <thead>
            <tr>
              <th>breaker</th>
              <th>over air</th>
              <th>over similar breakers</th>
              <th>at full rating</th>
              <th>first suspect</th>
              <th>then</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="h in heat" :key="h.id">
              <td>{{ h.id }}</td>
              <td>
                <b>{{ quantity(h.overAirC, 'Δ°C', job.site.units) }}</b>
                <span class="small soft">{{ h.airClass }}</span>
              </td>
              <td>
                {{
                  h.overWarmestC === undefined
                    ? '–'
                    : quantity(h.overWarmestC, 'Δ°C', job.site.units)
                }}
                <span class="small soft">{{ h.likeClass }}</span>
              </td>
              <td>
                {{
                  h.atRatedC
                    ? h.atRatedC.map(c => quantity(c, 'Δ°C', job.site.units)).join(' to ')
                    : 'load not clamped'
                }}<span v-if="h.isWeak" class="small soft"> low load: means little</span>
              </td>
              <td>{{ h.causes[0]?.cause ?? '–' }}</td>
              <td class="small">{{ h.next }}</td>
            </tr>
          </tbody>
        </table>
      </section>
      <div v-else class="two">
        <section>
          <label v-if="sources.length" class="small soft from"
            >Take from the house
            <select
              class="field"
              :value="from"
              aria-label="take from the house"
              @change="take(($event.target as HTMLSelectElement).value)"
            >
              <option value="">nothing: type below</option>
              <option v-for="s in sources" :key="s.id" :value="s.id">{{ s.label }}</option>
            </select></label
          >
          <BenchForm v-model="values" :fields="BENCH[id] ?? []" :next="nextKey" />
          <div class="row">
            <button
              v-if="from && isAsked"
              type="button"
              class="plain"
              :disabled="isKept"
              @click="putBack"
            >
              {{ isKept ? 'recorded' : 'Record in the house' }}</button><button
              v-if="isAsked"
              type="button"
              class="touch"
              @click="values = {}"
            >
              clear
            </button>
          </div>
        </section>
        <section class="answer" aria-live="polite">
          <p v-if="refused" :class="refusal.startsWith('Still') ? 'soft' : 'why'" role="status">
            {{ refusal }}
          </p>
          <p v-else-if="!out" class="soft">
            The answer stands here while you type. What is left open is unknown, never assumed.
          </p>
          <template v-else-if="diagnosis">
            <h2 v-if="diagnosis.answer" :class="{ lethal: diagnosis.states[0]?.isLethal }">
              {{ diagnosis.answer }}
            </h2>
            <h2 v-else-if="diagnosis.unexplained.length">Unexplained</h2>
            <h2 v-else>{{ diagnosis.fitting.length }} still fit</h2>
            <p v-if="!diagnosis.answer && diagnosis.proven.length" class="verdict">
              Proven: {{ diagnosis.proven.join(', ') }}
            </p>
            <p v-if="joint" class="small">
              {{ joint.excessVolts }} V more than the run explains{{
                joint.side
                  ? `, in the ${joint.side === 'both' ? 'hot and neutral' : joint.side}`
                  : ''
              }}: about {{ joint.ohms }} Ω, {{ joint.watts }} W of heat
            </p>
            <ul class="ranks">
              <li v-for="s in fits" :key="s.state">
                <SeverityMark
                  :kind="s.isLethal ? 'make safe now' : s.state === 'good' ? 'clear' : 'repair'"
                  :size="14"
                />
                <b>{{ s.state }}</b><i :style="{ width: `${Math.max(2, 100 * s.share)}%` }" /><span
                  class="small soft"
                  >{{ s.settles }}</span
                >
              </li>
            </ul>
            <button
              v-if="diagnosis.fitting.length > fits.length"
              type="button"
              class="touch"
              @click="showsAllFits = true"
            >
              {{ diagnosis.fitting.length - fits.length }} more, less likely
            </button>
            <p v-if="diagnosis.next" class="nextline">
              <SeverityMark kind="undecided" :size="16" />
              <span><b>Read next:</b> {{ diagnosis.next.how }}</span>
            </p>
            <section v-if="diagnosis.doubts.length">
              <h3>Proves nothing yet</h3>
              <p v-for="d in diagnosis.doubts" :key="d.why" class="small">
                {{ d.why }}. <b>Instead:</b> {{ d.instead }}
              </p>
            </section>
            <p v-if="diagnosis.ruledOut.length" class="small soft">
              Ruled out:
              {{
                diagnosis.states
                  .filter(s => diagnosis!.ruledOut.some(r => r === s.state))
                  .map(
                    s =>
                      `${s.state} (by ${s.ruledOutBy
                        .slice(0, 2)
                        .map(k => BENCH.diagnose!.find(f => f.key === k)?.label ?? k)
                        .join(', ')})`,
                  )
                  .join('; ')
              }}
            </p>
          </template>
          <template v-else-if="identity">
            <h2>
              {{ identity.metal ?? 'not settled'
              }}{{
                identity.size
                  ? `, ${identity.size} AWG`
                  : identity.sizes.length
                    ? `, ${identity.sizes.join(' or ')} AWG`
                    : ''
              }}
            </h2>
            <ul class="ranks">
              <li v-for="m in identity.metals" :key="m.metal">
                <b>{{ m.metal }}</b><i :style="{ width: `${Math.max(1, 100 * m.share)}%` }" /><span
                  class="small soft"
                  >{{ m.against.length ? `against it: ${m.against.join(', ')}` : '' }}</span
                >
              </li>
            </ul>
            <p v-for="c in identity.conflicts" :key="c" class="why small">{{ c }}</p>
            <p v-if="identity.next" class="nextline">
              <SeverityMark kind="undecided" :size="16" />
              <span><b>Look next:</b> {{ identity.next.look }}</span>
            </p>
          </template>
          <template v-else-if="id === 'ampacity'">
            <p class="hero">
              <b>{{ span(out.allowed) }}</b> A breaker
            </p>
            <p class="soft">ampacity {{ span(out.ampacity) }} A</p>
            <p v-if="out.breaker" class="verdict">
              <SeverityMark
                :kind="
                  out.breaker === 'fault'
                    ? 'repair'
                    : out.breaker === 'clear'
                      ? 'clear'
                      : 'undecided'
                "
              />
              {{
                out.breaker === 'fault'
                  ? 'too big'
                  : out.breaker === 'clear'
                    ? 'allowed'
                    : 'not decided'
              }}
            </p>
            <p v-if="(out.lookAt as string[]).length" class="nextline">
              <SeverityMark kind="undecided" :size="16" />
              <span
                ><b>It hangs on:</b>
                {{ (out.lookAt as string[]).map(k => WORDS[k] ?? k).join(', ') }}</span
              >
            </p>
            <ol class="work">
              <li v-for="w in out.working as string[]" :key="w">{{ w }}</li>
            </ol>
          </template>
          <template v-else-if="id === 'boxfill'">
            <p class="hero">
              <b>{{ out.total }}</b> of {{ out.volume }} in³
            </p>
            <p class="verdict">
              <SeverityMark :kind="out.fits ? 'clear' : 'repair'" />
              {{ out.fits ? 'fits' : 'too full' }}
            </p>
            <BoxFillDraw v-if="boxOut" v-bind="boxOut" />
          </template>
          <template v-else>
            <p v-if="out.verdict" class="verdict">
              <SeverityMark
                :kind="out.verdict === 'clear' || out.verdict === 'within' ? 'clear' : 'repair'"
              />
              {{ out.verdict }}
            </p>
            <p v-if="id === 'voltage-drop'" class="hero">
              <b>{{ out.percent }}</b> % <span class="soft">{{ out.lostVolts }} V</span>
            </p>
            <p v-if="id === 'dwelling-load'" class="hero">
              <b>{{ out.amps }}</b> A <span class="soft">{{ out.totalVa }} VA</span>
            </p>
            <p v-if="id === 'gfci-time'" class="hero">
              <b>{{ out.longestSeconds ?? '–' }}</b> s at most
            </p>
            <p v-if="id === 'trip-estimate'" class="hero">
              <b>{{ out.multiple }}</b> × its rating:
              <span class="soft"
                >{{ out.note }}{{ out.withinSeconds ? `, within ${out.withinSeconds} s` : '' }}. An
                estimate, not a rule.</span
              >
            </p>
            <ol v-if="out.working" class="work">
              <li v-for="w in out.working as string[]" :key="w">{{ w }}</li>
            </ol>
            <p v-if="out.note && id !== 'trip-estimate'" class="small soft">{{ out.note }}</p>
          </template>
        </section>
      </div>
    </PageState>
  </AppShell>
</template>

<style scoped>
.tabs {
  display: flex;
  gap: 0 1.2rem;
  border-bottom: 1px solid var(--line);
  margin-bottom: 1rem;
  overflow-x: auto;
  scrollbar-width: none;
}
.tab {
  min-height: 46px;
  font-weight: 600;
  color: var(--soft);
  border-bottom: 3px solid transparent;
  cursor: pointer;
  white-space: nowrap;
}
.tab[aria-current='true'] {
  color: var(--ink);
  border-bottom-color: var(--touch);
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1.25fr) minmax(0, 1fr);
  gap: 2rem;
  align-items: start;
}
.answer {
  position: sticky;
  top: 1rem;
  display: grid;
  gap: 0.6rem;
  border-left: 1px solid var(--line);
  padding-left: 1.6rem;
  min-height: 14rem;
  align-content: start;
}
.from {
  display: flex;
  gap: 0.6rem;
  align-items: center;
  margin-bottom: 0.9rem;
}
.from .field {
  width: auto;
  max-width: 22rem;
}
.row {
  display: flex;
  gap: 1rem;
  align-items: center;
  margin-top: 1.1rem;
}
.row .touch {
  min-height: 44px;
}
.answer h2 {
  font-size: 1.35rem;
}
.answer h2::first-letter {
  text-transform: uppercase;
}
.lethal {
  color: var(--now);
}
h3 {
  font-weight: 700;
}
.hero b {
  font-size: 2.6rem;
  line-height: 1.05;
}
.verdict {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  font-weight: 700;
  font-size: 1.1rem;
}
.ranks {
  display: grid;
  gap: 0.55rem;
}
.ranks li {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.1rem 0.5rem;
  align-items: center;
}
.ranks li > i {
  grid-column: 1 / -1;
  height: 5px;
  background: var(--cool);
}
.ranks li > span {
  grid-column: 1 / -1;
}
.ranks li > b:first-child {
  grid-column: 1 / -1;
}
.nextline {
  display: flex;
  gap: 0.6rem;
  align-items: baseline;
  border: 1.5px dashed var(--cool);
  padding: 0.5rem 0.7rem;
}
.work {
  display: grid;
  gap: 0.2rem;
}
.why {
  color: var(--repair);
  font-weight: 600;
}
.heat {
  overflow-x: auto;
}
.heat table {
  width: 100%;
}
.heat th {
  text-align: left;
  color: var(--soft);
  font-size: 0.85rem;
}
.heat td,
.heat th {
  padding: 0.4rem 0.8rem 0.4rem 0;
  border-bottom: 1px solid var(--line);
  vertical-align: top;
}
@media (max-width: 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
    gap: 1.2rem;
  }
  .answer {
    position: static;
    border-left: 0;
    padding-left: 0;
    border-top: 1px solid var(--line);
    padding-top: 1rem;
    min-height: 0;
    order: -1;
    border-top: 0;
    border-bottom: 1px solid var(--line);
    padding-bottom: 1rem;
  }
  .from {
    flex-wrap: wrap;
  }
  .from .field {
    max-width: 100%;
    width: 100%;
  }
}
</style>
