<script lang="ts">
import type { House } from '#core'

export interface CurrentsBoardProps {
  house: House
}
</script>

<script setup lang="ts">
import { usePreferredReducedMotion } from '@vueuse/core'

const props = defineProps<CurrentsBoardProps>()
const {
  setUps,
  id,
  setUp,
  turned,
  guess,
  clamp,
  isWhole,
  byHand,
  shown,
  sweep,
  problem,
  choose,
  curve,
  toggleBond,
  toggleClamp,
} = usePaths(() => props.house)

const calm = usePreferredReducedMotion()
const isStopped = ref(false)
const isMoving = computed(() => !isStopped.value && calm.value !== 'reduce')
const isAsking = computed(() => guess.value === undefined)
function answer(i: number) {
  guess.value = i
  curve()
}
watch(id, () => (isStopped.value = false))
const possible = computed(() => setUps.value.filter(s => 'question' in s))
const missing = computed(() => setUps.value.flatMap(s => ('why' in s ? [s] : [])))
const reads = computed(() => {
  const amps = shown.value?.clamp
  if (amps === undefined) return 'nothing in the jaws'
  return amps < 10 ? `${amps.toFixed(1)} A` : `${Math.round(amps)} A`
})
const turnedText = computed(() => {
  const slider = setUp.value?.slider
  if (!slider) return ''
  return `${turned.value.toLocaleString('en-US', { maximumFractionDigits: 3 })} ${slider.unit}`
})
const rows = computed(() =>
  (shown.value?.layout.lines ?? []).flatMap(line => {
    const branch = shown.value?.answer.branches.find(b => b.id === line.part)
    const part = shown.value?.answer.parts[line.part]
    if (!branch || !part) return []
    const text = `${part.text}${part.isAssumed ? ' (not recorded, drawn as usual)' : ''}`
    return [[text, `${Math.abs(branch.amperes ?? 0).toFixed(2)} A`]]
  }),
)
</script>

<template>
  <div class="board">
    <p v-if="problem" role="alert" class="fails">{{ problem }}</p>
    <template v-if="setUp && shown">
      <div class="top">
        <div class="which" role="group" aria-label="what to look at">
          <UButton
            v-for="s in possible"
            :key="s.id"
            color="neutral"
            variant="outline"
            class="chip"
            :aria-pressed="id === s.id"
            @click="choose(s.id)"
            >{{ s.title }}</UButton
          >
        </div>
        <section class="ask" aria-live="polite" data-testid="question">
          <p class="question">{{ setUp.question }}</p>
          <div class="guesses" role="group" aria-label="your guess">
            <UButton
              v-for="(g, i) in setUp.guesses"
              :key="g"
              color="neutral"
              variant="outline"
              class="chip"
              :aria-pressed="guess === i"
              :icon="
                isAsking
                  ? undefined
                  : i === setUp.right
                    ? 'lucide:check'
                    : guess === i
                      ? 'lucide:x'
                      : undefined
              "
              @click="answer(i)"
              >{{ g }}</UButton
            >
          </div>
        </section>
      </div>
      <div class="turn">
        <UFormField :label="setUp.slider.label" class="slider">
          <div class="row">
            <USlider
              v-model="turned"
              :min="setUp.slider.min"
              :max="setUp.slider.max"
              :step="setUp.slider.step"
              :aria-label="setUp.slider.label"
            />
            <b class="value">{{ turnedText }}</b>
          </div>
        </UFormField>
        <p class="clamp" data-testid="clamp">
          <UIcon name="lucide:magnet" />
          <span
            >Clamp: <b>{{ isAsking ? 'guess first' : reads }}</b></span
          >
          <span v-for="part in clamp" :key="part" class="small soft">{{
            shown.answer.parts[part]?.text ?? part
          }}</span>
        </p>
        <UButton
          color="neutral"
          variant="outline"
          :icon="isMoving ? 'lucide:pause' : 'lucide:play'"
          :label="isMoving ? 'Hold still' : 'Let it move'"
          :disabled="calm === 'reduce'"
          @click="isStopped = !isStopped"
        />
      </div>
      <div class="two" :class="{ whole: isWhole }">
        <div>
          <CurrentMap
            :layout="shown.layout"
            :answer="shown.answer"
            :clamp="clamp"
            :is-hidden="isAsking"
            :is-moving="isMoving"
            @clamp="toggleClamp"
            @bond="toggleBond"
          />
          <div class="switches" role="group" aria-label="switch by hand">
            <USwitch v-model="byHand.isNeutralOpen" label="Service neutral open" />
            <USwitch v-model="byHand.hasFault" label="Hot to the frame" />
            <USwitch v-model="byHand.isLoadOff" label="Loads off" />
            <USwitch v-model="isWhole" label="Draw every panel of the house" />
          </div>
          <p class="small soft">
            Press a conductor to lay the clamp round it, or round several. Press a bond to make or
            undo it. Movement shows one instant; half a cycle later all of it turns round.
          </p>
        </div>
        <aside v-if="!isAsking" class="after" data-testid="explains">
          <p v-for="line in shown.explains" :key="line">{{ line }}</p>
          <p class="caution"><UIcon name="lucide:triangle-alert" /> {{ setUp.caution }}</p>
          <SweepChart v-if="sweep" :sweep="sweep" :at="turned" />
          <details class="small">
            <summary class="touch">Every conductor as a table</summary>
            <FigureTable :head="['Conductor', 'Carries']" :rows="rows" />
          </details>
          <details v-if="shown.answer.assumed.length || shown.answer.leftOut.length" class="small">
            <summary class="touch">
              What is drawn without being recorded ({{
                shown.answer.assumed.length + shown.answer.leftOut.length
              }})
            </summary>
            <ul>
              <li v-for="line in shown.answer.assumed" :key="line">{{ line }}</li>
              <li v-for="line in shown.answer.leftOut" :key="line">Left out: {{ line }}</li>
            </ul>
          </details>
          <p class="small soft">
            A model of resistances at one instant, for seeing and teaching: not a measurement of
            this house, and no ground for touching anything.
          </p>
        </aside>
      </div>
    </template>
    <div v-else-if="!problem && setUps.length > 0" class="none">
      <p>Nothing of this house can be drawn yet: no panel with a circuit is recorded.</p>
      <UButton icon="lucide:graduation-cap" label="See it in the teaching house" to="/currents" />
    </div>
    <p v-else-if="!problem" class="soft" role="status">Working out where the current goes</p>
    <details v-if="missing.length && shown" class="small soft">
      <summary class="touch">What this house has no place for ({{ missing.length }})</summary>
      <ul>
        <li v-for="m in missing" :key="m.id">
          <b>{{ m.title }}</b>: {{ m.why }}
        </li>
      </ul>
    </details>
  </div>
</template>

<style scoped>
.board {
  display: grid;
  gap: 1rem;
}
.none {
  display: grid;
  gap: 0.8rem;
  justify-items: start;
}
.top {
  display: grid;
  gap: 0.8rem;
}
.which {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
.ask {
  background: var(--touch-tint);
  border-left: 4px solid var(--touch);
  padding: 0.8rem 1rem;
  display: grid;
  gap: 0.6rem;
}
.question {
  font-size: 1.1rem;
  font-weight: 600;
  text-wrap: balance;
}
.guesses {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
.turn {
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem 1.6rem;
  align-items: end;
}
.slider {
  flex: 1 1 16rem;
}
.row {
  display: flex;
  gap: 0.9rem;
  align-items: center;
  min-height: 40px;
}
.value {
  min-width: 5.5rem;
  white-space: nowrap;
}
.clamp {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 0.7rem;
  align-items: center;
  min-height: 40px;
}
.switches {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem 1.4rem;
  padding: 0.4rem 0 0.8rem;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 1.2rem;
}
.after {
  display: grid;
  gap: 0.8rem;
  align-content: start;
  max-width: 44rem;
}
.caution {
  color: var(--repair);
  font-weight: 600;
}
summary {
  min-height: 32px;
  display: inline-flex;
  align-items: center;
}
ul {
  padding-left: 1.2rem;
  list-style: disc;
}
@media (min-width: 1180px) {
  .two:not(.whole) {
    grid-template-columns: minmax(0, 3fr) minmax(20rem, 2fr);
  }
}
/* On a phone the question has to stand in sight: the set-ups are one row that is pushed sideways. */
@media (max-width: 600px) {
  .which {
    flex-wrap: nowrap;
    overflow-x: auto;
    padding-bottom: 0.3rem;
  }
  .which > * {
    flex: none;
  }
}
</style>
