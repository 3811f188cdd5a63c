<script lang="ts">
import type { AnyValue, Fact, Field, Grade } from '#core'

export interface FactRowProps {
  field: Field
  fact?: Fact
  /** Things a reference may point at. */
  targets?: readonly { id: string; label: string }[]
  /** A judgment waits for this. */
  asked?: boolean
  startOpen?: boolean
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
const roomUse = ref('')
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
  emit('room', roomName.value.trim(), roomUse.value)
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
    <button type="button" class="head" :aria-expanded="isOpen" @click="toggle">
      <span class="label">{{ field.label }}</span>
      <span v-if="known" class="value"
        >{{ shown }} <span class="small faint">{{ known.grade }}</span></span
      >
      <span v-else-if="fact" class="small why">{{ shown }}</span>
      <span v-else class="gap small">{{ asked ? 'look' : 'not seen' }}</span>
    </button>
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
        <select
          v-if="field.type === 'choice' && field.options.length > MANY"
          class="field"
          :aria-label="field.label"
          @change="set(($event.target as HTMLSelectElement).value)"
        >
          <option value="" disabled :selected="!known">choose</option>
          <option v-for="o in field.options" :key="o" :value="o" :selected="known?.value === o">
            {{ valueText(field, o) }}
          </option>
        </select>
        <template v-else-if="field.type === 'choice'">
          <button
            v-for="o in field.options"
            :key="o"
            type="button"
            class="chip"
            :aria-pressed="known?.value === o"
            @click="set(o)"
          >
            {{ o }}<span v-if="field.unit" class="small soft">{{ field.unit }}</span>
          </button>
        </template>
        <template v-else-if="field.type === 'flag'">
          <button
            type="button"
            class="chip"
            :aria-pressed="known?.value === true"
            @click="set(true)"
          >
            yes
          </button>
          <button
            type="button"
            class="chip"
            :aria-pressed="known?.value === false"
            @click="set(false)"
          >
            no
          </button>
        </template>
        <template v-else-if="field.type === 'ref'">
          <button
            v-for="w in field.words"
            :key="w"
            type="button"
            class="chip"
            :aria-pressed="known?.value === w"
            @click="set(w)"
          >
            {{ w }}
          </button>
          <select
            class="field"
            :aria-label="field.label"
            @change="set(($event.target as HTMLSelectElement).value)"
          >
            <option value="" disabled :selected="!known">choose</option>
            <option
              v-for="t in targets"
              :key="t.id"
              :value="t.id"
              :selected="known?.value === t.id"
            >
              {{ t.label }}
            </option>
          </select>
          <form v-if="field.kinds.includes('room')" class="typed" @submit.prevent="addRoom">
            <input
              v-model="roomName"
              class="field"
              maxlength="200"
              placeholder="another room"
              aria-label="name of another room"
            />
            <select v-model="roomUse" class="field" aria-label="use of the room">
              <option value="">use not recorded</option>
              <option v-for="u in FIELDS.room.use.options" :key="u">{{ u }}</option>
            </select>
            <button type="submit" class="plain">Add</button>
          </form>
        </template>
        <template v-else-if="field.type === 'refs'">
          <button
            type="button"
            class="chip"
            :aria-pressed="known !== undefined && (known.value as readonly string[]).length === 0"
            @click="set([])"
          >
            none
          </button>
          <button
            v-for="t in targets"
            :key="t.id"
            type="button"
            class="chip"
            :aria-pressed="chosen(t.id)"
            @click="toggleRef(t.id)"
          >
            {{ t.label }}
          </button>
        </template>
        <form v-else class="typed" @submit.prevent="setTyped">
          <button
            v-for="p in presets"
            :key="p"
            type="button"
            class="chip"
            :aria-pressed="known?.value === p"
            @click="set(p)"
          >
            {{ p }}
          </button>
          <input
            v-model="typed"
            class="field"
            :inputmode="
              field.type === 'number' ? 'decimal' : field.type === 'year' ? 'numeric' : 'text'
            "
            :aria-label="field.label"
            :maxlength="field.type === 'text' ? field.max : 20"
          />
          <span v-if="field.type === 'number'" class="soft">{{ unit.unit }}</span>
          <button type="submit" class="plain">Save</button>
        </form>
      </div>
      <form v-else class="typed" @submit.prevent="setBlocked">
        <input
          v-model="reason"
          class="field"
          aria-label="why it could not be seen"
          placeholder="locked, concealed, unsafe to open"
          maxlength="400"
        />
        <button type="submit" class="plain">Save</button>
      </form>
      <p v-if="problem" role="alert" class="small why">{{ problem }}</p>
      <div class="how">
        <label class="small soft"
          >known by
          <select v-model="grade" class="grade" aria-label="how it is known">
            <option v-for="g in GRADES" :key="g">{{ g }}</option>
          </select>
        </label>
        <button type="button" class="touch small" @click="isBlocking = !isBlocking">
          {{ isBlocking ? 'it could be seen' : 'could not be seen' }}
        </button>
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
  min-height: 36px;
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: 4px;
  margin-left: 0.4rem;
  color: var(--ink);
  padding: 0 0.3rem;
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
