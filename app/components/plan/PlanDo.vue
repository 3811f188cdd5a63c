<script lang="ts">
export type PlanDoProps = Record<never, never>
</script>

<script setup lang="ts">
import {
  fieldOf,
  labelOf,
  money,
  passesTest,
  expects,
  passWords,
  PLAN_PAPER_TITLES,
  PLAN_PAPERS,
  recordOf,
  remedyById,
  tasksInOrder,
  valueOf,
  valueSchema,
  type AcceptanceTest,
  type AnyValue,
  type Subject,
  type WorkChange,
} from '#core'

import type { BuiltLine } from '~/workers/plan.worker'

/** A test of a work with what was read. */
interface Reading extends AcceptanceTest {
  readonly label: string
  value: AnyValue | undefined
}

const { workAt } = inject(PLANNER)!
const job = useJobStore()
const tasks = computed(() => tasksInOrder(job.house))
const planned = computed(() => tasks.value.filter(t => valueOf(t, 'state') === 'planned'))
const stages = computed(() => {
  const map = new Map<string, Subject<'task'>[]>()
  for (const t of tasks.value) {
    const stage = valueOf(t, 'stage') ?? ''
    map.set(stage, [...(map.get(stage) ?? []), t])
  }
  return [...map]
})
const remedyOf = (t: Subject<'task'>) => remedyById(valueOf(t, 'remedy') ?? '')
const placeOf = (t: Subject<'task'>) => {
  const thing = job.house.subjects.get(valueOf(t, 'of') ?? '')
  return thing ? labelOf(job.site, thing) : 'a thing that is gone'
}

const at = ref<string>()
const changes = shallowRef<readonly WorkChange[]>([])
const readings = ref<Reading[]>([])
const built = shallowRef<readonly BuiltLine[]>([])
/** What was built otherwise than planned, by thing and field: it stays open until somebody records it. */
const otherwise = ref<ReadonlySet<string>>(new Set())
const isReady = ref(false)
const keyOf = (f: { subject: string; field: string }) => `${f.subject} ${f.field}`
const doing = computed(() => tasks.value.find(t => t.id === at.value))
async function begin(task: Subject<'task'>) {
  at.value = task.id
  isReady.value = false
  const answer = await workAt({
    rule: valueOf(task, 'rule') ?? '',
    subject: valueOf(task, 'of') ?? '',
    remedy: valueOf(task, 'remedy') ?? '',
  })
  if (at.value !== task.id || !answer) return
  changes.value = answer.changes
  readings.value = answer.tests.map(t => ({ ...t, value: undefined }))
  built.value = answer.built
  otherwise.value = new Set()
  isReady.value = true
}
const isDoing = computed({
  get: () => doing.value !== undefined,
  set: open => {
    if (!open) at.value = undefined
  },
})
const builtAt = computed(() => {
  const map = new Map<string, BuiltLine[]>()
  for (const b of built.value) map.set(b.label, [...(map.get(b.label) ?? []), b])
  return [...map]
})
function strike(b: BuiltLine) {
  const next = new Set(otherwise.value)
  if (!next.delete(keyOf(b))) next.add(keyOf(b))
  otherwise.value = next
}
const optionsAt = (r: Reading): { value: AnyValue; label: string }[] => {
  const field = fieldOf(r.kind, r.field)
  if (field?.type === 'flag') return [true, false].map(v => ({ value: v, label: v ? 'yes' : 'no' }))
  return field?.type === 'choice' ? field.options.map(o => ({ value: o, label: String(o) })) : []
}
const unitOf = (r: Reading) => (r.passes.kind === 'is' ? '' : r.passes.unit)
const isValid = (r: Reading) => {
  const field = fieldOf(r.kind, r.field)
  return field !== undefined && valueSchema(field).safeParse(r.value).success
}
const failing = computed(() =>
  readings.value.filter(r => r.value !== undefined && !passesTest(r, r.value)),
)
const untested = computed(() => readings.value.filter(r => r.value === undefined))
const unreadable = computed(() => readings.value.filter(r => r.value !== undefined && !isValid(r)))

function finish() {
  const task = doing.value
  if (!task || unreadable.value.length > 0) return
  const read = readings.value.flatMap(r =>
    r.value === undefined ? [] : [[keyOf(r), r.value] as const],
  )
  const done = { changes: changes.value, readings: new Map(read), otherwise: otherwise.value }
  job.record([
    ...recordOf(job.house, done),
    { act: 'note', subject: task.id, field: 'state', value: 'done', grade: 'seen' },
    { act: 'note', subject: task.id, field: 'doneOn', value: today(), grade: 'seen' },
  ])
  at.value = undefined
}
const giveUp = (task: Subject<'task'>) => job.note(task.id, 'state', 'given up')
const again = (task: Subject<'task'>) => job.note(task.id, 'state', 'planned')
</script>

<template>
  <div class="do">
    <p v-if="!tasks.length" class="soft none">
      No plan is accepted yet. Choose one; what is to be done then stands here, with the papers for
      it.
    </p>
    <template v-else>
      <section class="papers" aria-label="papers">
        <a
          v-for="p in PLAN_PAPERS"
          :key="p"
          class="paper"
          :href="`/api/jobs/${job.jobId}/papers/${p}`"
          ><UIcon name="lucide:file-text" /> {{ PLAN_PAPER_TITLES[p] }}
          <span class="small soft">PDF</span></a
        >
      </section>
      <p class="caution">
        <UIcon name="lucide:triangle-alert" /> Power off, locked, and absence of voltage proved
        before every work. Local code and licensed practice decide.
      </p>
      <p class="small soft">{{ tasks.length - planned.length }} of {{ tasks.length }} settled</p>
      <section v-for="[stage, list] in stages" :key="stage">
        <h2>{{ stage }}</h2>
        <ul>
          <li v-for="t in list" :key="t.id" class="task" :data-state="valueOf(t, 'state')">
            <span class="what"
              ><b>{{ remedyOf(t)?.title }}</b
              ><span class="small soft"
                >{{ placeOf(t) }} · {{ money(valueOf(t, 'cents') ?? 0) }}</span
              ></span
            >
            <template v-if="valueOf(t, 'state') === 'planned'">
              <UButton size="lg" label="Done" icon="lucide:check" @click="begin(t)" />
              <UButton
                size="lg"
                color="neutral"
                variant="ghost"
                label="Leave it"
                @click="giveUp(t)"
              />
            </template>
            <template v-else>
              <span class="state"
                >{{ valueOf(t, 'state')
                }}<template v-if="valueOf(t, 'doneOn')"> {{ valueOf(t, 'doneOn') }}</template></span
              >
              <UButton
                size="lg"
                color="neutral"
                variant="ghost"
                label="Open again"
                @click="again(t)"
              />
            </template>
          </li>
        </ul>
      </section>
    </template>

    <USlideover
      v-model:open="isDoing"
      :title="doing ? (remedyOf(doing)?.title ?? '') : ''"
      :description="doing ? placeOf(doing) : ''"
    >
      <template #body>
        <div v-if="doing" class="sheet" data-testid="doing">
          <p v-if="!isReady" class="soft" role="status">Looking what has to be tested</p>
          <template v-else>
            <details>
              <summary class="touch">The steps</summary>
              <ol class="steps">
                <li v-for="s in remedyOf(doing)?.steps" :key="s">{{ s }}</li>
              </ol>
              <p v-for="c in remedyOf(doing)?.cautions" :key="c" class="small caution">
                <UIcon name="lucide:triangle-alert" /> {{ c }}
              </p>
            </details>
            <p v-if="!readings.length && !changes.length">
              Its fault is gone already, or what it makes so shows only when it is done: record what
              you see at the thing itself.
            </p>
            <h3 v-if="readings.length">Test it now</h3>
            <div
              v-for="r in readings"
              :key="r.subject + r.field"
              class="test"
              :data-field="r.field"
            >
              <p>
                <b>{{ r.label }}</b><br />{{ r.look
                }}<span v-if="r.instrument" class="soft"> ({{ r.instrument }})</span>
              </p>
              <p class="small soft">
                {{ r.passes.kind === 'read' ? '' : 'Passes at: ' }}{{ passWords(r.passes) }}
              </p>
              <UInputNumber
                v-if="r.passes.kind !== 'is'"
                v-model="r.value as number | undefined"
                :min="0"
                :step="0.1"
                size="lg"
                :aria-label="`${r.label}: ${r.look}, ${unitOf(r)}`"
              />
              <div v-else class="chips">
                <UButton
                  v-for="o in optionsAt(r)"
                  :key="o.label"
                  color="neutral"
                  variant="outline"
                  class="chip"
                  :aria-pressed="r.value === o.value"
                  @click="r.value = r.value === o.value ? undefined : o.value"
                  >{{ o.label }}</UButton
                >
              </div>
              <p v-if="r.value !== undefined && !isValid(r)" class="fails" role="alert">
                Expected {{ expects(fieldOf(r.kind, r.field)!) }}
              </p>
              <p
                v-else-if="r.value !== undefined && !passesTest(r, r.value)"
                class="fails"
                role="alert"
              >
                Does not pass. It is recorded as read, and judged.
              </p>
            </div>
            <template v-if="built.length">
              <h3>Recorded as built</h3>
              <p class="small soft">
                As planned. Touch what you built otherwise: it stays open until you record it there.
              </p>
              <div v-for="[label, lines] in builtAt" :key="label" class="built">
                <p>
                  <b>{{ label }}</b>
                </p>
                <div class="chips">
                  <UButton
                    v-for="b in lines"
                    :key="b.field"
                    color="neutral"
                    variant="outline"
                    class="chip asbuilt"
                    :data-built="b.field"
                    :aria-pressed="!otherwise.has(keyOf(b))"
                    @click="strike(b)"
                    >{{ b.says }}</UButton
                  >
                </div>
              </div>
            </template>
            <ul class="small dots">
              <li v-for="t in remedyOf(doing)?.tests" :key="t">{{ t }}</li>
            </ul>
          </template>
        </div>
      </template>
      <template #footer>
        <div class="foot">
          <p v-if="isReady && untested.length" class="small soft">
            {{ untested.length }} not tested: recorded as not tested, not as planned.
          </p>
          <UButton
            size="xl"
            :disabled="!isReady || unreadable.length > 0"
            :label="failing.length ? 'Record as it is' : 'Record as done'"
            @click="finish"
          />
        </div>
      </template>
    </USlideover>
  </div>
</template>

<style scoped>
.do {
  display: grid;
  gap: 1.1rem;
  margin-top: 1rem;
}
.papers {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
.paper {
  display: inline-flex;
  gap: 0.4rem;
  align-items: center;
  min-height: 44px;
  padding: 0 0.8rem;
  border: 1px solid var(--line);
  border-radius: 4px;
  color: var(--touch);
  font-weight: 600;
}
.task {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  gap: 0.4rem;
  align-items: center;
  border-bottom: 1px solid var(--line);
  padding: 0.4rem 0;
  min-height: 56px;
}
.task[data-state='done'] b {
  text-decoration: line-through;
}
.what {
  display: grid;
}
.state {
  color: var(--cool);
}
.sheet {
  display: grid;
  gap: 0.9rem;
}
.steps {
  list-style: decimal;
  padding-left: 1.3rem;
}
.dots {
  list-style: disc;
  padding-left: 1.3rem;
}
h3 {
  font-weight: 700;
}
.test {
  display: grid;
  gap: 0.4rem;
  border-bottom: 1px solid var(--line);
  padding-bottom: 0.7rem;
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
.asbuilt {
  font-size: 0.85rem;
  min-height: 36px;
}
.asbuilt[aria-pressed='false'] {
  text-decoration: line-through;
}
.built {
  display: grid;
  gap: 0.3rem;
}
.fails {
  color: var(--now);
  font-weight: 600;
}
.foot {
  display: grid;
  gap: 0.4rem;
  width: 100%;
}
.caution {
  color: var(--repair);
}
.none {
  margin-top: 1rem;
}
@media (max-width: 900px) {
  .asbuilt {
    min-height: 44px;
  }
  .task {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  .what {
    grid-column: 1 / -1;
  }
}
</style>
