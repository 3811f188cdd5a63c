<script lang="ts">
import type { Debrief } from '#core'

export interface PracticeDebriefProps {
  result: Debrief
}
export interface PracticeDebriefEmits {
  again: []
}
</script>

<script setup lang="ts">
import { ruleById } from '#core'

const { result } = defineProps<PracticeDebriefProps>()
const emit = defineEmits<PracticeDebriefEmits>()
const minutes = (seconds: number) => `${Math.max(1, Math.round(seconds / 60))} min`
const groups = computed(() =>
  [
    { id: 'found', title: 'Found', lines: result.found },
    { id: 'missed', title: 'Missed', lines: result.missed },
    {
      id: 'besides',
      title: 'True besides: it follows from what was put in',
      lines: result.besides,
    },
  ].filter(g => g.lines.length > 0),
)
const MINUTE = 60
const took = (seconds: number) => (seconds < MINUTE ? `${seconds} s` : minutes(seconds))
const yours = computed(() =>
  result.yours.map(s => [s.label, s.words, took(s.seconds), s.isDone ? 'yes' : 'no']),
)
const steps = computed(() =>
  result.shortest.map(s => [s.label, s.words, took(s.seconds), s.isDone ? 'yes' : 'no']),
)
</script>

<template>
  <section class="debrief" data-testid="debrief">
    <div class="top">
      <p class="score">
        <b>{{ result.score }}</b> of 100
      </p>
      <p class="soft">
        {{ result.found.length }} of {{ result.found.length + result.missed.length }} found,
        {{ result.invented.length }} invented, {{ result.skipped }} safety
        {{ result.skipped === 1 ? 'step' : 'steps' }} left out, in {{ minutes(result.seconds) }}.
      </p>
      <UButton color="primary" icon="lucide:play" label="Another round" @click="emit('again')" />
    </div>
    <div v-for="g in groups" :key="g.id" :data-group="g.id">
      <h2>{{ g.title }}</h2>
      <article v-for="l in g.lines" :key="l.rule + l.subject" class="line">
        <p class="b">{{ ruleById(l.rule)?.fault }}: {{ l.label }}</p>
        <p>{{ l.why }}</p>
        <p v-for="w in l.working" :key="w" class="small soft">{{ w }}</p>
        <p class="small">
          <template v-if="l.severity.called"
            >You said {{ l.severity.called
            }}{{
              l.severity.called === l.severity.is ? ', and so it is' : `; it is ${l.severity.is}`
            }}.
          </template>
          <template v-else-if="l.severity.is">It is {{ l.severity.is }}. </template>
          <template v-if="l.remedy.good.length">
            <template v-if="l.remedy.called">{{
              l.remedy.isGood
                ? 'The remedy you chose serves.'
                : 'The remedy you chose does not serve here.'
            }}</template>
            What serves: {{ l.remedy.good.join('; ') }}.</template
          >
        </p>
      </article>
    </div>
    <div v-if="result.invented.length" data-group="invented">
      <h2>Invented</h2>
      <p v-for="i in result.invented" :key="i.rule + i.label">
        <b>{{ i.fault }}</b>: {{ i.label }}. Nothing of it is so here.
      </p>
    </div>
    <div v-if="steps.length" class="beside">
      <div>
        <h2>The shortest that tells all of it: {{ minutes(result.shortestSeconds) }}</h2>
        <FigureTable
          :head="['Where', 'What', 'Takes', 'You did']"
          :rows="steps"
          :figures="[2, 3]"
        />
      </div>
      <div data-testid="yours">
        <h2>Yours, in its order: {{ minutes(result.seconds) }}</h2>
        <p v-if="yours.length === 0" class="soft">You looked at nothing.</p>
        <FigureTable
          v-else
          :head="['Where', 'What', 'Takes', 'Needed']"
          :rows="yours"
          :figures="[2, 3]"
        />
      </div>
    </div>
    <PracticeProgress />
  </section>
</template>

<style scoped>
.debrief {
  display: grid;
  gap: 1.2rem;
  max-width: 72rem;
}
.top {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1.4rem;
  align-items: center;
}
.score {
  font-size: 1.3rem;
}
.score b {
  font-size: 2.6rem;
}
.line {
  border-bottom: 1px solid var(--line);
  padding: 0.5rem 0;
}
.b {
  font-weight: 600;
}
.beside {
  display: grid;
  gap: 1.4rem;
}
@media (min-width: 1000px) {
  .beside {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
