<script lang="ts">
export interface SchoolsPickProps {
  /** What the plan says of circuits on which the chosen way is none. */
  departures: readonly {
    readonly rule: string
    readonly subject: string
    readonly label: string
    readonly said: string
  }[]
}
</script>

<script setup lang="ts">
import { labelOf, schoolById, SCHOOLS } from '#core'

defineProps<SchoolsPickProps>()
const job = useJobStore()
const { schools } = inject(PLANNER)!
type Question = (typeof SCHOOLS)[number]

const isOf = (q: Question, school: string) => q.schools.some(s => s.id === school)
const schoolOf = (q: Question) =>
  schools.value.find(c => c.circuit === undefined && isOf(q, c.school))?.school ?? 'any'
/** Chooses for the house, or for one circuit; what was chosen there before is gone. */
function choose(q: Question, school: string, circuit?: string) {
  const others = schools.value.filter(c => c.circuit !== circuit || !isOf(q, c.school))
  const mine = circuit === undefined ? { school } : { school, circuit }
  schools.value = school === 'any' ? others : [...others, mine]
}
const itemsOf = (q: Question) => [
  { value: 'any', label: 'Whichever serves the aim' },
  ...q.schools.map(s => ({ value: s.id, label: s.label })),
]
const whyOf = (q: Question) => q.schools.find(s => s.id === schoolOf(q))?.why

const circuits = computed(() =>
  job.site.all.circuit.map(c => ({ value: c.id, label: labelOf(job.site, c) })),
)
const nameOf = (id: string) => circuits.value.find(c => c.value === id)?.label ?? id
const apart = computed(() =>
  schools.value.flatMap(({ school, circuit }) =>
    circuit === undefined
      ? []
      : [{ school, circuit, words: `${nameOf(circuit)}: ${schoolById(school)?.label ?? school}` }],
  ),
)
const isApartOpen = ref(false)
const circuit = ref<string>()
const ways = SCHOOLS.flatMap(q => q.schools.map(s => ({ value: s.id, label: s.label })))
function chooseApart(school: string) {
  const q = SCHOOLS.find(one => isOf(one, school))
  if (!q || circuit.value === undefined) return
  choose(q, school, circuit.value)
  circuit.value = undefined
  isApartOpen.value = false
}
</script>

<template>
  <div class="schools">
    <UFormField v-for="q in SCHOOLS" :key="q.id" :label="q.title" :help="whyOf(q)">
      <USelect
        class="w-full"
        :items="itemsOf(q)"
        :model-value="schoolOf(q)"
        :aria-label="q.title"
        @update:model-value="v => choose(q, String(v))"
      />
    </UFormField>
    <ul v-if="apart.length" class="apart small" data-testid="schools-apart">
      <li v-for="a in apart" :key="a.circuit + a.school">
        {{ a.words }}
        <UButton
          color="neutral"
          variant="ghost"
          icon="lucide:x"
          :aria-label="`take back: ${a.words}`"
          @click="schools = schools.filter(c => c.circuit !== a.circuit || c.school !== a.school)"
        />
      </li>
    </ul>
    <UButton
      v-if="!isApartOpen"
      color="neutral"
      variant="link"
      icon="lucide:plus"
      label="One circuit goes another way"
      @click="isApartOpen = true"
    />
    <div v-else class="pick">
      <USelectMenu
        v-model="circuit"
        class="w-full"
        value-key="value"
        :items="circuits"
        placeholder="Which circuit"
        aria-label="which circuit"
      />
      <USelect
        class="w-full"
        :items="ways"
        :disabled="circuit === undefined"
        placeholder="Which way it goes"
        aria-label="which way it goes"
        @update:model-value="v => chooseApart(String(v))"
      />
    </div>
    <p v-for="d in departures" :key="d.rule + d.subject" class="small soft">
      {{ d.label }}: {{ d.said }}
    </p>
  </div>
</template>

<style scoped>
.schools,
.pick {
  display: grid;
  gap: 0.8rem;
}
.schools {
  padding-top: 0.5rem;
  justify-items: start;
}
.schools > *,
.pick {
  width: 100%;
}
.apart li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 0.4rem;
}
</style>
