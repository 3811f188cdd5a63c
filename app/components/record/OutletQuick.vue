<script lang="ts">
import type { Subject } from '#core'

export interface OutletQuickProps {
  outlet: Subject<'outlet'>
  /** How many facts "all alike" would copy to the others here. */
  alike: number
}
export interface OutletQuickEmits {
  /** A first reading of the lamp tester was taken: the hand goes on to the next. */
  read: []
  alike: []
  where: [words: string]
  more: []
}
</script>

<script setup lang="ts">
import { fieldOf, LAMPS, labelOf, valueOf } from '#core'

const { outlet, alike } = defineProps<OutletQuickProps>()
const emit = defineEmits<OutletQuickEmits>()
const job = useJobStore()
const isReceptacle = computed(() => valueOf(outlet, 'type') === 'receptacle')
const circuit = computed(() => {
  const c = job.site.get(valueOf(outlet, 'circuit'), 'circuit')
  return c ? labelOf(job.site, c).replace(/^.*?, (?=space )/, '') : 'circuit not found yet'
})
const FACES = [
  ['two', 'two slots'],
  ['three', 'three slots'],
  ['T-slot', '20 A face'],
  ['240 V', '240 V'],
] as const
/** The three most seen stand open, the others behind a touch. */
const FIRST_LAMPS: readonly (typeof LAMPS)[number][] = ['correct', 'open ground', 'reversed']
const showsLamps = ref(false)
const lamps = computed(() =>
  showsLamps.value || !FIRST_LAMPS.includes(valueOf(outlet, 'lamps') ?? 'correct')
    ? LAMPS
    : FIRST_LAMPS,
)
const WHERE = [
  'by the door',
  'window wall',
  'left wall',
  'right wall',
  'closet wall',
  'at the sink',
  'counter',
  'ceiling',
] as const
const isNaming = ref(false)
watch(
  () => outlet.id,
  () => {
    isNaming.value = false
    showsLamps.value = false
  },
)
const isGfci = computed(() => valueOf(outlet, 'protection') === 'GFCI')
/** A device with test and reset buttons has three slots: one tap says both. */
function gfci() {
  const drafts: Parameters<typeof job.record>[0][number][] = [
    { act: 'note', subject: outlet.id, field: 'protection', value: 'GFCI', grade: 'seen' },
  ]
  if (valueOf(outlet, 'slots') === undefined)
    drafts.push({ act: 'note', subject: outlet.id, field: 'slots', value: 'three', grade: 'seen' })
  job.record(drafts)
}
function lamp(says: (typeof LAMPS)[number]) {
  const isFirst = valueOf(outlet, 'lamps') === undefined
  job.record([
    {
      act: 'note',
      subject: outlet.id,
      field: 'lamps',
      value: says,
      grade: 'measured',
      instrument: 'three-lamp tester',
    },
  ])
  if (isFirst && says === 'correct') emit('read')
}
/** Faults here, worst first; a fault unless … brings its one question. */
const found = computed(() => (job.bySubject.get(outlet.id) ?? []).filter(isFinding).slice(0, 3))
const answer = (field: string, is: boolean) => job.note(outlet.id, field, is, 'seen')
const askOf = (f: (typeof found.value)[number]) => {
  const ask = f.leans?.ask
  return ask && ask.subject === outlet.id ? ask : undefined
}
const isYesNo = (field: string) => fieldOf('outlet', field)?.type === 'flag'
</script>

<template>
  <section class="quick" data-testid="quick">
    <header>
      <h2>{{ valueOf(outlet, 'name') ?? 'outlet' }}</h2>
      <span class="small soft">{{ circuit }}</span>
      <UButton
        color="primary"
        variant="link"
        class="touch"
        :label="isNaming ? 'keep the name' : 'say where'"
        @click="isNaming = !isNaming"
      />
    </header>
    <div v-if="isNaming" class="chips" role="group" aria-label="where it is">
      <UButton
        v-for="w in WHERE"
        :key="w"
        color="neutral"
        variant="outline"
        class="chip"
        @click="emit('where', w)"
        >{{ w }}</UButton
      >
    </div>
    <template v-if="isReceptacle">
      <div class="chips" role="group" aria-label="face">
        <span class="lead small soft">Face</span>
        <UButton
          v-for="[value, word] in FACES"
          :key="value"
          color="neutral"
          variant="outline"
          class="chip"
          :aria-pressed="valueOf(outlet, 'slots') === value"
          @click="job.note(outlet.id, 'slots', value, 'seen')"
          >{{ word }}</UButton><UButton
          color="neutral"
          variant="outline"
          class="chip"
          :aria-pressed="isGfci"
          @click="gfci"
          >GFCI</UButton
        >
      </div>
      <div class="chips pad" role="group" aria-label="lamp tester">
        <span class="lead small soft">Tester</span>
        <UButton
          v-for="l in lamps"
          :key="l"
          color="neutral"
          variant="outline"
          class="chip"
          :aria-pressed="valueOf(outlet, 'lamps') === l"
          @click="lamp(l)"
          >{{ l }}</UButton><UButton
          v-if="lamps.length < LAMPS.length"
          color="neutral"
          variant="outline"
          class="chip quiet"
          @click="showsLamps = true"
          >more</UButton
        >
      </div>
    </template>
    <ul v-if="found.length" class="found">
      <li v-for="f in found" :key="f.rule">
        <SeverityMark :kind="f.severity!" :size="15" :open="f.leans !== undefined" />
        <span
          ><b>{{ f.title }}</b>
          <template v-if="f.leans"
            ><span class="small soft"> unless {{ f.leans.unless.join(', or ') }}</span
            ><span v-if="askOf(f)" class="ask"
              ><span class="small">{{ askOf(f)!.fact }}?</span
              ><template v-if="isYesNo(askOf(f)!.field)"
                ><UButton
                  color="primary"
                  variant="outline"
                  size="lg"
                  label="yes"
                  @click="answer(askOf(f)!.field, true)" /><UButton
                  color="primary"
                  variant="outline"
                  size="lg"
                  label="no"
                  @click="answer(askOf(f)!.field, false)" /></template
            ></span>
          </template>
        </span>
      </li>
    </ul>
    <div class="chips">
      <UButton
        v-if="alike > 0"
        color="primary"
        variant="outline"
        size="lg"
        icon="lucide:copy-check"
        label="All alike in this room"
        data-testid="alike"
        @click="emit('alike')"
      /><UButton
        color="neutral"
        variant="outline"
        size="lg"
        icon="lucide:list-tree"
        label="Everything about it"
        @click="emit('more')"
      />
    </div>
  </section>
</template>

<style scoped>
.quick {
  display: grid;
  gap: 0.75rem;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 0.8rem;
  align-items: baseline;
}
h2 {
  font-size: 1.2rem;
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  align-items: center;
}
.lead {
  width: 100%;
}
.chips .chip {
  min-height: 48px;
}
.found {
  display: grid;
  gap: 0.4rem;
}
.found li {
  display: flex;
  gap: 0.55rem;
  align-items: flex-start;
  background: var(--sheet);
  border-radius: 4px;
  padding: 0.55rem 0.7rem;
}
.found li > svg {
  margin-top: 0.2rem;
}
.ask {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: center;
  margin-top: 0.3rem;
}
header .touch {
  min-height: 44px;
}
</style>
