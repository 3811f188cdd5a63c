<script setup lang="ts">
import { BUDGETS, DIFFICULTIES, practiceFaults, type Difficulty, type Theme } from '#core'
import type { PracticeHouse } from '~/composables/usePractice'

const job = useJobStore()
onMounted(() => job.close())
const route = useRoute()
const difficulty = ref<Difficulty>('first steps')
const theme = ref<Theme>('anything')
/** A number in the address makes the same house for everybody who opens it. */
const asked = Number(route.query.seed)
const seed = ref(
  Number.isInteger(asked) && asked > 0 ? asked : 1 + Math.floor(Math.random() * 99_999),
)
const house = shallowRef<PracticeHouse>()
const { make, isMaking, problem } = usePracticeMaker()
const WORDS: Readonly<Record<Difficulty, string>> = {
  'first steps': 'A small house, two faults, time enough',
  ordinary: 'A whole house, three faults',
  hard: 'A whole house, four faults, little time, few covers',
}
function begin() {
  const title = `House ${seed.value}, ${difficulty.value}`
  const { minutes, covers } = BUDGETS[difficulty.value]
  make(
    { seed: seed.value, difficulty: difficulty.value, theme: theme.value },
    ({ log, injected }) => (house.value = { title, log, injected, minutes, covers }),
  )
}
function again() {
  house.value = undefined
  seed.value = 1 + Math.floor(Math.random() * 99_999)
}
</script>

<template>
  <AppShell title="Practice" :subtitle="house?.title ?? 'Houses where nobody can be hurt'" wide>
    <PracticeBoard v-if="house" :key="house.title" :house="house" @again="again" />
    <div v-else class="start">
      <p>
        A house with faults in it, out of {{ practiceFaults() }} kinds and what only instruments
        find. Looks cost time, covers are counted, and so are the safety steps you leave out. Call
        what is wrong; at the end you see what was there, and how it could have been found.
      </p>
      <UFormField label="How hard">
        <div class="chips" role="group" aria-label="how hard">
          <UButton
            v-for="d in DIFFICULTIES"
            :key="d"
            color="neutral"
            variant="outline"
            class="chip"
            :aria-pressed="difficulty === d"
            @click="difficulty = d"
            >{{ d }}</UButton
          >
        </div>
        <template #help>{{ WORDS[difficulty] }}</template>
      </UFormField>
      <ThemePick v-model="theme" />
      <UFormField label="House number" help="The same number is the same house, for everybody">
        <UInputNumber
          size="xl"
          v-model="seed"
          :min="1"
          :max="99999"
          :format-options="{ useGrouping: false }"
          aria-label="house number"
        />
      </UFormField>
      <p v-if="problem" role="alert" class="fails">
        This house could not be made: {{ problem }}. Take another number.
      </p>
      <UButton
        color="primary"
        size="xl"
        icon="lucide:play"
        :loading="isMaking"
        label="Begin"
        class="begin"
        @click="begin"
      />
      <p class="small soft">
        A supervisor can make a round of any job: open it, choose Practice there, and put in more
        faults.
      </p>
      <PracticeProgress />
    </div>
  </AppShell>
</template>

<style scoped>
.start {
  display: grid;
  gap: 1.1rem;
  max-width: 46rem;
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
.begin {
  justify-self: start;
}
</style>
