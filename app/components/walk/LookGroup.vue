<script lang="ts">
import {
  expects,
  triedAt,
  fieldOf,
  valueSchema,
  type OpenLook,
  type AnyValue,
  type Grade,
} from '#core'

export interface LookGroupProps {
  /** Looks for the same fact on things of one kind, in one place. */
  looks: readonly OpenLook[]
}
</script>

<script setup lang="ts">
const { looks } = defineProps<LookGroupProps>()
const job = useJobStore()
const first = computed(() => looks[0]!)
const field = computed(() => fieldOf(first.value.kind, first.value.field)!)
const isOpen = ref(false)
const isSingly = ref(false)
/** Things picked out on the drawing: the answer is not theirs, and they stay open. */
const except = ref<ReadonlySet<string>>(new Set())
const meant = computed(() => looks.filter(l => !except.value.has(l.subject)))
const typed = ref('')
const reason = ref('')
const problem = ref('')
const settles = computed(() => looks.reduce((sum, l) => sum + l.settles, 0))
const isDanger = computed(() => looks.some(l => l.danger >= 4))
const factOf = (look: OpenLook) => triedAt(job.house.subjects.get(look.subject), look.field)
/** One answer suits many things only where it is a plain value. */
const suitsAll = computed(
  () => looks.length > 1 && ['choice', 'flag', 'number'].includes(field.value.type),
)
const targets = computed(() =>
  field.value.type === 'ref' || field.value.type === 'refs'
    ? refTargets(job.site, field.value)
    : [],
)

function keepAll(value: AnyValue, grade: Grade = 'seen') {
  if (!valueSchema(field.value).safeParse(value).success) {
    problem.value = `Expected ${expects(field.value)}`
    return
  }
  problem.value = ''
  job.record(
    meant.value.map(l => ({
      act: 'note' as const,
      subject: l.subject,
      field: l.field,
      value,
      grade,
    })),
  )
}
function blockAll() {
  if (reason.value.trim() === '') {
    problem.value = 'Say why it could not be seen'
    return
  }
  job.record(
    meant.value.map(l => ({
      act: 'block' as const,
      subject: l.subject,
      field: l.field,
      reason: reason.value.trim(),
    })),
  )
}
const what = computed(() =>
  looks.length > 1
    ? `${looks.length} × ${first.value.fact}`
    : first.value.kind === 'premises'
      ? first.value.fact
      : `${first.value.label}: ${first.value.fact}`,
)
</script>

<template>
  <div class="group" :class="{ open: isOpen }" :data-field="first.field">
    <UButton
      color="neutral"
      variant="ghost"
      class="head bare"
      :aria-expanded="isOpen"
      @click="isOpen = !isOpen"
    >
      <SeverityMark kind="undecided" :size="20" />
      <span class="body">
        <span class="fact">{{ what }}</span>
        <span class="small soft"
          >{{ first.look }}<template v-if="first.with"> ({{ first.with }})</template></span
        >
      </span>
      <span class="small settles"
        ><b v-if="isDanger" class="first">first</b> answers {{ settles }}
        {{ settles === 1 ? 'check' : 'checks' }}</span
      >
    </UButton>
    <div v-if="isOpen" class="pad">
      <template v-if="suitsAll && !isSingly">
        <p class="small soft">
          {{
            except.size
              ? `The same for ${meant.length} of them; what is struck out stays open:`
              : `The same for all ${looks.length}; touch what differs first:`
          }}
        </p>
        <ExceptPicker v-model="except" :things="looks.map(l => l.subject)" />
        <div class="chips">
          <template v-if="field.type === 'choice'"
            ><UButton
              v-for="o in field.options"
              :key="o"
              color="neutral"
              variant="outline"
              class="chip"
              @click="keepAll(o)"
            >
              {{ o }}<span v-if="field.unit" class="small soft">{{ field.unit }}</span>
            </UButton></template
          >
          <template v-else-if="field.type === 'flag'"
            ><UButton color="neutral" variant="outline" class="chip" @click="keepAll(true)"
              >yes</UButton
            ><UButton color="neutral" variant="outline" class="chip" @click="keepAll(false)"
              >no</UButton
            ></template
          >
          <form v-else class="typed" @submit.prevent="keepAll(Number(typed.replace(',', '.')))">
            <UInput
              v-model="typed"
              class="field"
              inputmode="decimal"
              :aria-label="field.label"
            /><span class="soft">{{ 'unit' in field ? field.unit : '' }}</span
            ><UButton color="neutral" variant="outline" type="submit" class="plain">Save</UButton>
          </form>
        </div>
        <form class="typed" @submit.prevent="blockAll">
          <UInput
            v-model="reason"
            class="field"
            placeholder="or why none could be seen"
            aria-label="why none could be seen"
            maxlength="400"
          /><UButton color="neutral" variant="outline" type="submit" class="plain"
            >Not seen</UButton
          >
        </form>
        <UButton color="primary" variant="link" class="touch more" @click="isSingly = true">
          one by one:
          {{
            looks
              .slice(0, 3)
              .map(l => l.label.replace(/^.*?, (?=space )/, ''))
              .join('; ')
          }}{{ looks.length > 3 ? ' …' : '' }}
        </UButton>
      </template>
      <template v-else>
        <div v-for="l in looks" :key="l.subject">
          <p v-if="looks.length > 1" class="small which">{{ l.label }}</p>
          <FactRow
            :field="field"
            :fact="factOf(l)"
            :targets="targets"
            asked
            :start-open="looks.length === 1"
            @note="(v, g) => job.note(l.subject, l.field, v, g)"
            @block="r => job.block(l.subject, l.field, r)"
          />
        </div>
        <UButton
          v-if="suitsAll"
          color="primary"
          variant="link"
          class="touch more"
          @click="isSingly = false"
        >
          all at once
        </UButton>
      </template>
      <p v-if="problem" role="alert" class="small why">{{ problem }}</p>
    </div>
  </div>
</template>

<style scoped>
.group {
  border-bottom: 1px solid var(--line);
}
.head {
  display: grid;
  grid-template-columns: 20px 1fr auto;
  gap: 0.7rem;
  text-align: left;
  width: 100%;
  min-height: 52px;
  padding: 0.5rem 0;
  cursor: pointer;
  align-items: start;
}
.head:hover .fact {
  color: var(--touch);
}
.body {
  display: grid;
}
.fact {
  font-weight: 600;
}
.settles {
  color: var(--cool);
  font-weight: 600;
  white-space: nowrap;
}
.first {
  color: var(--now);
  margin-right: 0.3rem;
}
.pad {
  padding: 0 0 0.9rem 27px;
  display: grid;
  gap: 0.5rem;
}
.chips,
.typed {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  align-items: center;
}
.typed {
  flex: 1;
}
.typed .field {
  flex: 1 1 9rem;
  width: auto;
  max-width: 24rem;
}
.more {
  min-height: 44px;
  text-align: left;
}
.which {
  font-weight: 600;
  margin-top: 0.4rem;
}
.why {
  color: var(--repair);
}
</style>
