<script lang="ts">
export interface BenchAnswerProps {
  id: string
  /** What the calculator answered; undefined while nothing is put in, or something is still needed. */
  out?: Record<string, unknown>
  isRefused?: boolean
  refusal?: string
}
</script>

<script setup lang="ts">
import type { Diagnosis, Drop, Identity } from '#core'

const { id, out = undefined, isRefused = false, refusal = '' } = defineProps<BenchAnswerProps>()
const diagnosis = computed(() =>
  id === 'diagnose'
    ? (out as unknown as (Omit<Diagnosis, 'answer'> & { answer: string | null }) | undefined)
    : undefined,
)
const identity = computed(() =>
  id === 'identify'
    ? (out as unknown as
        | (Omit<Identity, 'metal' | 'size'> & { metal: string | null; size: string | null })
        | undefined)
    : undefined,
)
const boxOut = computed(() =>
  id === 'boxfill'
    ? (out as unknown as
        | {
            lines: { what: string; count: number; each: number; volume: number }[]
            total: number
            volume: number
            fits: boolean
          }
        | undefined)
    : undefined,
)
/** What the run does not explain of a drop under load. */
const joint = computed(() => {
  const drop = id === 'diagnose' ? (out?.drop as Drop | null | undefined) : undefined
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
  <section class="answer" aria-live="polite">
    <p v-if="isRefused" :class="refusal.startsWith('Still') ? 'soft' : 'why'" role="status">
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
          joint.side ? `, in the ${joint.side === 'both' ? 'hot and neutral' : joint.side}` : ''
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
      <UButton
        v-if="diagnosis.fitting.length > fits.length"
        color="primary"
        variant="link"
        class="touch"
        @click="showsAllFits = true"
      >
        {{ diagnosis.fitting.length - fits.length }} more, less likely
      </UButton>
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
            out.breaker === 'fault' ? 'repair' : out.breaker === 'clear' ? 'clear' : 'undecided'
          "
        />
        {{
          out.breaker === 'fault' ? 'too big' : out.breaker === 'clear' ? 'allowed' : 'not decided'
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
</template>

<style scoped>
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
@media (max-width: 900px) {
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
}
</style>
