<script lang="ts">
export type PlanDoProps = Record<never, never>
</script>

<script setup lang="ts">
import {
  fieldOf,
  labelOf,
  money,
  passesTest,
  passWords,
  PLAN_PAPER_TITLES,
  PLAN_PAPERS,
  remedyById,
  tasksInOrder,
  valueOf,
  valueSchema,
  type AcceptanceTest,
  type AnyValue,
  type Subject,
  type WorkChange,
} from '#core'

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
const isAsking = ref(false)
const isReady = ref(false)
const doing = computed(() => tasks.value.find(t => t.id === at.value))
async function begin(task: Subject<'task'>) {
  at.value = task.id
  isAsking.value = true
  isReady.value = false
  const answer = await workAt({
    rule: valueOf(task, 'rule') ?? '',
    subject: valueOf(task, 'of') ?? '',
    remedy: valueOf(task, 'remedy') ?? '',
  })
  if (at.value !== task.id || !answer) return
  changes.value = answer.changes
  readings.value = answer.tests.map(t => ({ ...t, value: undefined }))
  isReady.value = true
}
const isDoing = computed({
  get: () => doing.value !== undefined,
  set: open => {
    if (!open) at.value = undefined
  },
})
const fieldAt = (r: Reading) => {
  const thing = job.house.subjects.get(r.subject)
  return thing && fieldOf(thing.kind, r.field)
}
const optionsAt = (r: Reading): { value: AnyValue; label: string }[] => {
  const field = fieldAt(r)
  if (field?.type === 'flag') return [true, false].map(v => ({ value: v, label: v ? 'yes' : 'no' }))
  return field?.type === 'choice' ? field.options.map(o => ({ value: o, label: String(o) })) : []
}
const unitOf = (r: Reading) => (r.passes.kind === 'is' ? '' : r.passes.unit)
const failing = computed(() =>
  readings.value.filter(r => r.value !== undefined && !passesTest(r, r.value)),
)
const untested = computed(() => readings.value.filter(r => r.value === undefined))
const LATER = 'Not tested since the work was done'

/** What was put in is recorded as seen, what was read as measured; what nobody tested is open again. */
function finish() {
  const task = doing.value
  if (!task) return
  const read = new Map(readings.value.map(r => [`${r.subject} ${r.field}`, r]))
  const drafts: Parameters<typeof job.record>[0][number][] = []
  for (const c of changes.value) {
    if (c.act !== 'note') {
      drafts.push(c)
      continue
    }
    const reading = read.get(`${c.subject} ${c.field}`)
    if (!reading) drafts.push({ ...c, grade: 'seen' })
    else if (reading.value === undefined)
      drafts.push({ act: 'block', subject: c.subject, field: c.field, reason: LATER })
    else {
      const field = fieldAt(reading)
      if (!field || !valueSchema(field).safeParse(reading.value).success) continue
      const instrument = reading.instrument
      drafts.push({
        act: 'note',
        subject: c.subject,
        field: c.field,
        value: reading.value,
        grade: instrument ? 'measured' : 'seen',
        ...(instrument && { instrument }),
      })
    }
  }
  drafts.push({ act: 'note', subject: task.id, field: 'state', value: 'done', grade: 'seen' })
  drafts.push({
    act: 'note',
    subject: task.id,
    field: 'doneOn',
    value: new Date().toISOString().slice(0, 10),
    grade: 'seen',
  })
  job.record(drafts)
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
            <p v-else-if="!readings.length" class="soft">
              Nothing has to be read afterwards. What was put in is recorded.
            </p>
            <h3 v-else>Test it now</h3>
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
              <p class="small soft">Passes at: {{ passWords(r.passes) }}</p>
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
              <p v-if="r.value !== undefined && !passesTest(r, r.value)" class="fails" role="alert">
                Does not pass. It is recorded as read, and judged.
              </p>
            </div>
            <ul class="small dots">
              <li v-for="t in remedyOf(doing)?.tests" :key="t">{{ t }}</li>
            </ul>
          </template>
        </div>
      </template>
      <template #footer>
        <div class="foot">
          <p v-if="isReady && untested.length" class="small soft">
            {{ untested.length }} not tested: it stays open in the record.
          </p>
          <UButton
            size="xl"
            :disabled="!isReady"
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
  .task {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  .what {
    grid-column: 1 / -1;
  }
}
</style>
