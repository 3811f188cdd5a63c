<script lang="ts">
import type { Severity, SpokenResult } from '#core'

export interface FindingCardProps {
  finding: SpokenResult
  /** All findings that read like this one, itself included; they are named in a list. */
  alike?: readonly SpokenResult[]
  /** The thing it is about is already named around it. */
  unnamed?: boolean
  /** The part of the thing it is about. */
  part?: string
  /** Remedies in columns. */
  wide?: boolean
  /** Remedies shown without asking. */
  fixes?: boolean
}
export interface FindingCardEmits {
  /** A place was touched: show the thing there. */
  place: [subject: string]
}
</script>

<script setup lang="ts">
import { compareIn, PREMISES_ID, SEVERITIES, valueOf } from '#core'

const {
  finding,
  alike = [],
  unnamed = false,
  part = '',
  wide = false,
  fixes = false,
} = defineProps<FindingCardProps>()
const emit = defineEmits<FindingCardEmits>()
const job = useJobStore()
const isWeighing = ref(false)
const weight = ref<Severity>(finding.severity!)
const reason = ref(finding.byHand?.reason ?? '')
const overrideId = () =>
  job.site.all.override.find(
    o => valueOf(o, 'rule') === finding.rule && valueOf(o, 'of') === finding.subject.id,
  )?.id
/** Set by a person with a reason, for this finding or for all that read like it; the computed one is kept beside it. */
function weigh() {
  job.record(
    (alike.length > 0 ? alike : [finding]).flatMap(f => {
      const id = (f === finding ? overrideId() : undefined) ?? crypto.randomUUID()
      const note = (field: string, value: string) => ({
        act: 'note' as const,
        subject: id,
        field,
        value,
        grade: 'told' as const,
      })
      return [
        ...(job.house.subjects.has(id)
          ? []
          : [{ act: 'add' as const, subject: id, kind: 'override' as const, parent: PREMISES_ID }]),
        note('rule', f.rule),
        note('of', f.subject.id),
        note('severity', weight.value),
        note('reason', reason.value.trim()),
      ]
    }),
  )
  isWeighing.value = false
}
function unweigh() {
  const id = overrideId()
  if (id) job.record([{ act: 'drop', subject: id }])
  isWeighing.value = false
}
const isOpen = ref(false)
/** Places named before the rest wait behind a touch. */
const FIRST = 8
const showsAll = ref(false)
const places = computed(() => (showsAll.value ? alike : alike.slice(0, FIRST)))
const tone = computed(
  () =>
    ({
      'make safe now': 'now',
      repair: 'repair',
      upgrade: 'upgrade',
      note: 'record',
    })[finding.severity!],
)
const offered = computed(() => finding.remedies.filter(r => r.verdict === 'offered').length)
</script>

<template>
  <article class="finding" :class="tone" :data-rule="finding.rule">
    <header>
      <span class="sev" :class="`sev-${tone}`"
        ><SeverityMark :kind="finding.severity!" :open="!!finding.leans" /> {{ finding.severity
        }}{{ finding.leans ? ', unless' : '' }}</span
      >
      <span class="small soft">{{ finding.grade }}</span>
    </header>
    <h3>
      {{ finding.title
      }}<span v-if="alike.length > 1" class="where"> · {{ alike.length }} places</span
      ><span v-else-if="!unnamed" class="where"> · {{ finding.subject.label }}</span
      ><span v-else-if="part" class="where"> · {{ part }}</span>
    </h3>
    <CompareRow
      v-if="finding.compare"
      :compare="compareIn(finding.compare, job.site.units)"
      :tone="`sev-${tone}`"
    />
    <p class="why">{{ finding.why }}</p>
    <ul v-if="finding.checks.length > 1" class="also">
      <li v-for="c in finding.checks.slice(1)" :key="c.id">{{ c.sentence }}</li>
    </ul>
    <div v-if="finding.leans" class="leans" data-testid="leans">
      <p v-if="finding.leans.unless.length">
        <b>{{ finding.leans.to === 'fault' ? 'A fault unless' : 'Allowed to remain if' }}</b>
        {{ finding.leans.unless.join(', or ') }}.
      </p>
      <p v-if="finding.until"><b>Until then</b> {{ finding.until }}.</p>
      <LookRow
        :look="{ ...finding.leans.ask, settles: 0, rules: [], danger: 0 }"
        :unnamed="unnamed"
        @pick="id => emit('place', id)"
      />
    </div>
    <p v-if="alike.length > 1" class="places">
      <UButton
        v-for="f in places"
        :key="f.subject.id"
        color="neutral"
        variant="ghost"
        class="place bare"
        @click.stop="emit('place', f.subject.id)"
      >
        {{ f.subject.label }}
      </UButton>
      <UButton
        v-if="alike.length > FIRST && !showsAll"
        color="primary"
        variant="link"
        class="touch place more"
        @click.stop="showsAll = true"
      >
        {{ alike.length - FIRST }} more
      </UButton>
    </p>
    <p v-if="finding.remark" class="soft">{{ finding.remark }}.</p>
    <p class="small">
      <b>{{ sentenceCase(finding.standing ?? '') }}</b><span class="soft"
        >: {{ finding.standingWhy }}</span
      >
    </p>
    <p class="foot">
      <UButton
        color="primary"
        variant="link"
        class="touch"
        :aria-expanded="isOpen"
        @click="isOpen = !isOpen"
      >
        {{ isOpen ? 'Hide the math' : wide || fixes ? 'Show the math' : 'Math and remedies' }}
      </UButton>
      <span v-if="!wide && !fixes" class="small soft"
        >{{ offered }} of {{ finding.remedies.length }} remedies open</span
      >
    </p>
    <div v-if="isOpen" class="sum small">
      <ol v-if="finding.working.length">
        <li v-for="(w, i) in finding.working" :key="i">{{ w }}</li>
      </ol>
      <p class="soft">
        Severity: {{ finding.severityWhy
        }}<template v-if="finding.byHand">
          = {{ finding.byHand.computed }}. Weighed by hand as {{ finding.severity }}:
          {{ finding.byHand.reason }}</template
        >
        <UButton
          color="primary"
          variant="link"
          class="touch byhand"
          @click="isWeighing = !isWeighing"
        >
          {{ finding.byHand ? 'change' : 'set it by hand' }}
        </UButton>
      </p>
      <form v-if="isWeighing" class="weigh" @submit.prevent="weigh">
        <USelect
          v-model="weight"
          class="field"
          aria-label="severity by hand"
          :items="[...SEVERITIES]"
        />
        <UInput
          v-model="reason"
          class="field"
          maxlength="400"
          placeholder="because"
          aria-label="reason for the severity"
        />
        <UButton
          color="neutral"
          variant="outline"
          type="submit"
          class="plain"
          :disabled="reason.trim() === ''"
          >Save</UButton
        >
        <UButton
          v-if="finding.byHand"
          color="primary"
          variant="link"
          class="touch"
          @click="unweigh"
        >
          as computed
        </UButton>
      </form>
      <p class="soft">Sections {{ finding.sections.join(' · ') }}</p>
      <p class="soft">What it rests on; the weakest is {{ finding.grade }}</p>
      <dl class="rests">
        <template v-for="e in finding.evidence" :key="`${e.subject}${e.field}`">
          <dt>
            {{ e.label
            }}<span v-if="e.earlier.length" class="soft">
              (before: {{ e.earlier.map(x => `${x.value}, ${x.by}`).join('; ') }})</span
            >
          </dt>
          <dd>
            <b>{{ e.value }}</b> <span class="soft">{{ e.grade }}</span>
          </dd>
        </template>
      </dl>
    </div>
    <div v-if="wide || fixes || isOpen" class="fix">
      <h4 class="small soft">Remedies here</h4>
      <RemedyList :remedies="finding.remedies" :columns="wide" />
    </div>
  </article>
</template>

<style scoped>
.finding {
  padding: 0.8rem 0.9rem 0.9rem 1.15rem;
  position: relative;
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: 4px;
}
.finding::before {
  content: '';
  position: absolute;
  inset: -1px auto -1px -1px;
  width: 7px;
  border-radius: 4px 0 0 4px;
}
.finding.now::before {
  background: repeating-linear-gradient(45deg, var(--now) 0 4px, var(--sheet) 4px 6px);
}
.finding.repair::before {
  background: var(--repair);
}
.finding.upgrade::before {
  border: 2px solid var(--upgrade);
}
.finding.record::before {
  background: none;
  border-left: 2px dotted var(--record);
}
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
.sev {
  font-weight: 700;
  display: inline-flex;
  gap: 0.4rem;
  align-items: center;
  font-size: 0.9rem;
}
.sev::first-letter {
  text-transform: uppercase;
}
h3 {
  font-weight: 700;
  margin: 0.25rem 0 0.15rem;
}
.where {
  font-weight: 400;
  color: var(--soft);
}
.foot {
  display: flex;
  justify-content: space-between;
  align-items: center;
  margin-top: 0.2rem;
}
.foot .touch {
  min-height: 32px;
  text-align: left;
}
.sum {
  border-top: 1px solid var(--line);
  padding-top: 0.5rem;
  display: grid;
  gap: 0.4rem;
}
.sum ol {
  list-style: decimal;
  padding-left: 1.2rem;
}
.rests {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0.2rem 0.8rem;
}
.byhand {
  margin-left: 0.7rem;
  min-height: 32px;
}
.weigh {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
.weigh .field:last-of-type {
  flex: 1 1 12rem;
  width: auto;
}
.fix {
  margin-top: 0.7rem;
}
.fix h4 {
  margin-bottom: 0.4rem;
}
h3::first-letter,
.why::first-letter {
  text-transform: uppercase;
}
.places {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem;
  margin: 0.35rem 0;
}
.place {
  min-height: 32px;
  padding: 0 0.6rem;
  border: 1px solid var(--line);
  border-radius: 3px;
  font-size: 0.85rem;
  cursor: pointer;
  text-align: left;
}
.place:hover {
  border-color: var(--touch);
  color: var(--touch);
}
.place.more {
  border-color: transparent;
}
@media (max-width: 900px) {
  .place {
    min-height: 44px;
  }
}
@media print {
  .finding {
    break-inside: avoid;
  }
  .foot {
    display: none;
  }
}
</style>
