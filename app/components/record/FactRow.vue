<script lang="ts">
import type { AnyValue, Fact, Field, Grade } from '#core'
import type { InstrumentTarget } from '#shared/instruments'

export interface FactRowProps {
  field: Field
  fact?: Fact
  /** Things a reference may point at. */
  targets?: readonly { id: string; label: string }[]
  /** A judgment waits for this. */
  asked?: boolean
  startOpen?: boolean
  /** Where an instrument would read it. */
  at?: InstrumentTarget
}
export interface FactRowEmits {
  note: [value: AnyValue, grade: Grade]
  block: [reason: string]
  /** A room that is not recorded yet. */
  room: [name: string, use: string]
}
</script>

<script setup lang="ts">
import { asTyped, typedIn, expects, FIELDS, GRADES, valueSchema, valueText } from '#core'

const {
  field,
  fact = undefined,
  targets = [],
  asked = false,
  startOpen = false,
  at = undefined,
} = defineProps<FactRowProps>()
const emit = defineEmits<FactRowEmits>()
/** More options than fit a hand are a list to scroll. */
const MANY = 24
const job = useJobStore()
const opinionBy = (observation: string) => job.find(observation)?.by ?? ''
const isOpen = ref(startOpen)
const grade = ref<Grade>('seen')
const typed = ref('')
const reason = ref('')
const isBlocking = ref(false)
const roomName = ref('')
const roomUse = ref<(typeof FIELDS.room.use.options)[number]>()
const problem = ref('')
const known = computed(() => (fact?.state === 'known' ? fact : undefined))
const shown = computed(() => {
  if (!known.value) return fact?.state === 'blocked' ? `could not be seen: ${fact.reason}` : ''
  const name = (id: string) => targets.find(t => t.id === id)?.label ?? id
  const { value } = known.value
  if (field.type === 'ref') return name(String(value))
  if (field.type === 'refs') return (value as readonly string[]).map(name).join(', ') || 'none'
  return valueText(field, value, job.site.units)
})
const presets = computed(() =>
  field.type === 'number' && field.label === 'rating'
    ? [15, 20, 25, 30, 40, 50, 60]
    : field.type === 'number' && field.integer && field.max <= 12
      ? [0, 1, 2, 3, 4].filter(n => n >= field.min && n <= field.max)
      : [],
)

function toggle() {
  isOpen.value = !isOpen.value
  if (isOpen.value) {
    grade.value = known.value?.grade ?? 'seen'
    typed.value =
      known.value && ['number', 'text', 'year'].includes(field.type)
        ? textOf(known.value.value)
        : ''
    problem.value = ''
    isBlocking.value = false
  }
}
const unit = computed(() =>
  typedIn(field.type === 'number' ? (field.unit ?? '') : '', job.site.units),
)
function textOf(value: AnyValue): string {
  if (Array.isArray(value)) return value.join('-')
  const isNumber = field.type === 'number' && typeof value === 'number'
  return String(isNumber ? asTyped(value, field.unit ?? '', job.site.units) : value)
}
function set(value: AnyValue) {
  if (!valueSchema(field).safeParse(value).success) {
    problem.value = `Expected ${expects(field)}`
    return
  }
  emit('note', value, grade.value)
  isOpen.value = false
}
function setTyped() {
  const text = typed.value.trim()
  if (field.type === 'text') return set(text)
  if (field.type === 'year' && /^\d{4}\s*-\s*\d{4}$/.test(text))
    return set(text.split('-').map(Number) as [number, number])
  set(text === '' ? Number.NaN : unit.value.declared(Number(text.replace(',', '.'))))
}
function setBlocked() {
  if (reason.value.trim() === '') {
    problem.value = 'Say why it could not be seen'
    return
  }
  emit('block', reason.value.trim())
  isOpen.value = false
}
function addRoom() {
  if (roomName.value.trim() === '') {
    problem.value = 'Name the room'
    return
  }
  emit('room', roomName.value.trim(), roomUse.value ?? '')
  roomName.value = ''
  isOpen.value = false
}
const chosen = (id: string) =>
  Array.isArray(known.value?.value) && (known.value.value as readonly string[]).includes(id)
function toggleRef(id: string) {
  const now = Array.isArray(known.value?.value) ? (known.value.value as readonly string[]) : []
  emit('note', now.includes(id) ? now.filter(x => x !== id) : [...now, id], grade.value)
}
</script>

<template>
  <div class="fact" :class="{ asked, open: isOpen }">
    <UButton
      color="neutral"
      variant="ghost"
      class="head bare"
      :aria-expanded="isOpen"
      @click="toggle"
    >
      <span class="label">{{ field.label }}</span>
      <span v-if="known" class="value"
        >{{ shown }} <span class="small faint">{{ known.grade }}</span></span
      >
      <span v-else-if="fact" class="small why">{{ shown }}</span>
      <span v-else class="gap small">{{ asked ? 'look' : 'not seen' }}</span>
    </UButton>
    <div v-if="known?.rivals.length" class="rivals" role="note">
      <p class="small">
        <b>Two opinions.</b> {{ job.whoOf(known.observation, opinionBy(known.observation)) }}:
        {{ shown }};
        {{
          known.rivals
            .map(
              e =>
                `${job.whoOf(e.observation, e.by)}: ${valueText(field, e.value, job.site.units)}`,
            )
            .join('; ')
        }}
      </p>
      <div class="row">
        <UButton
          v-for="v in [known.value, ...known.rivals.map(r => r.value)]"
          :key="String(v)"
          size="lg"
          color="neutral"
          variant="outline"
          @click="emit('note', v as AnyValue, known.grade)"
          >{{ valueText(field, v as AnyValue, job.site.units) }} is right</UButton
        >
      </div>
    </div>
    <p v-if="known?.earlier.length" class="small soft before">
      before:
      {{
        known.earlier
          .map(
            e => `${valueText(field, e.value, job.site.units)} (${job.whoOf(e.observation, e.by)})`,
          )
          .join(', ')
      }}
    </p>
    <div v-if="isOpen" class="pad">
      <p class="small soft">
        {{ field.look }}<template v-if="field.with"> ({{ field.with }})</template>
      </p>
      <div v-if="!isBlocking" class="choices">
        <USelectMenu
          v-if="field.type === 'choice' && field.options.length > MANY"
          class="field"
          value-key="value"
          placeholder="choose"
          :aria-label="field.label"
          :items="field.options.map(o => ({ value: o, label: valueText(field, o) }))"
          :model-value="known ? String(known.value) : undefined"
          @update:model-value="v => set(v)"
        />
        <template v-else-if="field.type === 'choice'">
          <UButton
            v-for="o in field.options"
            :key="o"
            color="neutral"
            variant="outline"
            class="chip"
            :aria-pressed="known?.value === o"
            @click="set(o)"
          >
            {{ o }}<span v-if="field.unit" class="small soft">{{ field.unit }}</span>
          </UButton>
        </template>
        <template v-else-if="field.type === 'flag'">
          <UButton
            color="neutral"
            variant="outline"
            class="chip"
            :aria-pressed="known?.value === true"
            @click="set(true)"
          >
            yes
          </UButton>
          <UButton
            color="neutral"
            variant="outline"
            class="chip"
            :aria-pressed="known?.value === false"
            @click="set(false)"
          >
            no
          </UButton>
        </template>
        <template v-else-if="field.type === 'ref'">
          <UButton
            v-for="w in field.words"
            :key="w"
            color="neutral"
            variant="outline"
            class="chip"
            :aria-pressed="known?.value === w"
            @click="set(w)"
          >
            {{ w }}
          </UButton>
          <USelectMenu
            class="field"
            value-key="id"
            placeholder="choose"
            :aria-label="field.label"
            :items="[...targets]"
            :model-value="known ? String(known.value) : undefined"
            @update:model-value="v => set(v)"
          />
          <form v-if="field.kinds.includes('room')" class="typed" @submit.prevent="addRoom">
            <UInput
              v-model="roomName"
              class="field"
              maxlength="200"
              placeholder="another room"
              aria-label="name of another room"
            />
            <USelectMenu
              v-model="roomUse"
              class="field"
              placeholder="use not recorded"
              aria-label="use of the room"
              :items="[...FIELDS.room.use.options]"
            />
            <UButton color="neutral" variant="outline" type="submit" class="plain">Add</UButton>
          </form>
        </template>
        <template v-else-if="field.type === 'refs'">
          <UButton
            color="neutral"
            variant="outline"
            class="chip"
            :aria-pressed="known !== undefined && (known.value as readonly string[]).length === 0"
            @click="set([])"
          >
            none
          </UButton>
          <UButton
            v-for="t in targets"
            :key="t.id"
            color="neutral"
            variant="outline"
            class="chip"
            :aria-pressed="chosen(t.id)"
            @click="toggleRef(t.id)"
          >
            {{ t.label }}
          </UButton>
        </template>
        <form v-else class="typed" @submit.prevent="setTyped">
          <UButton
            v-for="p in presets"
            :key="p"
            color="neutral"
            variant="outline"
            class="chip"
            :aria-pressed="known?.value === p"
            @click="set(p)"
          >
            {{ p }}
          </UButton>
          <UInput
            v-model="typed"
            class="field"
            :inputmode="
              field.type === 'number' ? 'decimal' : field.type === 'year' ? 'numeric' : 'text'
            "
            :aria-label="field.label"
            :maxlength="field.type === 'text' ? field.max : 20"
          />
          <span v-if="field.type === 'number'" class="soft">{{ unit.unit }}</span>
          <UButton color="neutral" variant="outline" type="submit" class="plain">Save</UButton>
        </form>
      </div>
      <form v-else class="typed" @submit.prevent="setBlocked">
        <UInput
          v-model="reason"
          class="field"
          aria-label="why it could not be seen"
          placeholder="locked, concealed, unsafe to open"
          maxlength="400"
        />
        <UButton color="neutral" variant="outline" type="submit" class="plain">Save</UButton>
      </form>
      <LiveReading v-if="at && !isBlocking" :at="at" @taken="isOpen = false" />
      <p v-if="problem" role="alert" class="small why">{{ problem }}</p>
      <div class="how">
        <div class="small soft">
          known by
          <USelect
            v-model="grade"
            size="md"
            class="grade"
            aria-label="how it is known"
            :items="[...GRADES]"
          />
        </div>
        <UButton
          color="primary"
          variant="link"
          class="touch small"
          @click="isBlocking = !isBlocking"
        >
          {{ isBlocking ? 'it could be seen' : 'could not be seen' }}
        </UButton>
      </div>
    </div>
  </div>
</template>

<style scoped>
.fact {
  border-bottom: 1px solid var(--line);
}
.head {
  width: 100%;
  min-height: 44px;
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 1rem;
  text-align: left;
  cursor: pointer;
}
.head:hover .label {
  color: var(--touch);
}
.value {
  font-weight: 600;
  text-align: right;
}
.why {
  color: var(--repair);
  text-align: right;
}
.gap {
  border: 1.5px dashed var(--line);
  padding: 0.1rem 0.6rem;
  border-radius: 3px;
  color: var(--soft);
}
.asked .gap {
  border-color: var(--ink);
  color: var(--ink);
  font-weight: 600;
}
.pad {
  padding: 0 0 0.7rem;
  display: grid;
  gap: 0.5rem;
}
.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
.typed {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  align-items: center;
  width: 100%;
}
.typed .field {
  flex: 1 1 8rem;
  width: auto;
}
.how {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
.grade {
  margin-left: 0.4rem;
}
.rivals {
  border-left: 4px solid var(--repair);
  padding: 0.2rem 0 0.5rem 0.6rem;
  display: grid;
  gap: 0.4rem;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
.before {
  margin-top: -0.4rem;
  padding-bottom: 0.3rem;
}
.how .touch {
  min-height: 36px;
}
</style>
