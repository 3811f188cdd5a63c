<script lang="ts">
import type { PracticeHouse } from '~/composables/usePractice'

export interface PracticeBoardProps {
  house: PracticeHouse
}
export interface PracticeBoardEmits {
  again: []
}
</script>

<script setup lang="ts">
import {
  callsFor,
  factAt,
  fieldOf,
  labelOf,
  ruleById,
  valueText,
  type PracticeAction,
  type PracticeThing,
} from '#core'

const props = defineProps<PracticeBoardProps>()
const emit = defineEmits<PracticeBoardEmits>()
const practice = usePractice(props.house)
const { answers, places, round, told, result, facts, secondsLeft, coversLeft } = practice

const at = ref(places[0]?.id)
const place = computed(() => places.find(p => p.id === at.value))
const openThing = ref<string>()
const minutes = (seconds: number) => `${Math.floor(seconds / 60)} min`
const took = (seconds: number) =>
  seconds < 60 ? `${seconds} s` : `${Math.round(seconds / 60)} min`

/** The action whose safety steps are being done. */
const pending = shallowRef<{ thing: string; action: PracticeAction }>()
const stepsDone = ref(0)
function press(thing: string, action: PracticeAction) {
  if (!practice.isShut(action)) {
    practice.act(thing, action, 0)
    return
  }
  pending.value = { thing, action }
  stepsDone.value = 0
}
function open() {
  if (!pending.value) return
  practice.act(pending.value.thing, pending.value.action, stepsDone.value)
  pending.value = undefined
}
const linesOf = (thing: PracticeThing) =>
  practice.actionsOf(thing).flatMap(a =>
    a.facts
      .filter(f => facts.value.has(`${f.thing} ${f.field}`))
      .flatMap(f => {
        const member = answers.house.subjects.get(f.thing)
        const field = member && fieldOf(member.kind, f.field)
        const fact = factAt(member, f.field)
        if (!member || !field || fact?.state !== 'known') return []
        const alike = thing.members.filter(m => m.kind === member.kind).length
        const which = alike > 1 ? `${labelOf(answers, member)}: ` : ''
        return [{ label: which + field.label, value: valueText(field, fact.value, answers.units) }]
      }),
  )
const countOf = (thing: string) => round.value.done.filter(d => d.thing === thing).length
const named = (id: string) => {
  const thing = answers.house.subjects.get(id)
  return thing ? labelOf(answers, thing) : id
}
</script>

<template>
  <PracticeDebrief v-if="result" :result="result" @again="emit('again')" />
  <div v-else class="board">
    <div class="head" data-testid="practice-head">
      <span
        ><UIcon name="lucide:timer" /> <b>{{ minutes(secondsLeft) }}</b> left</span
      >
      <span
        ><UIcon name="lucide:hard-hat" /> <b>{{ coversLeft }}</b> covers to open</span
      >
      <span
        ><b>{{ round.calls.length }}</b> called</span
      >
      <span class="grow" />
      <UButton
        color="neutral"
        variant="outline"
        icon="lucide:lightbulb"
        label="Hint (3 min)"
        @click="practice.hint()"
      />
      <UButton color="primary" icon="lucide:flag" label="Finish" @click="practice.finish()" />
    </div>
    <p v-if="told" class="hint" role="status">{{ told }}</p>
    <div class="places" role="group" aria-label="places">
      <UButton
        v-for="p in places"
        :key="p.id"
        color="neutral"
        variant="outline"
        class="chip"
        :aria-pressed="at === p.id"
        @click="((at = p.id), (openThing = undefined))"
        >{{ p.label }} <span class="small soft">{{ p.things.length }}</span></UButton
      >
    </div>
    <div class="two">
      <ul class="things">
        <li v-for="t in place?.things ?? []" :key="t.id" :data-thing="t.id">
          <UButton
            color="neutral"
            variant="ghost"
            class="thing bare"
            :aria-expanded="openThing === t.id"
            @click="openThing = openThing === t.id ? undefined : t.id"
          >
            <b>{{ t.label }}</b>
            <span class="small soft"
              >{{ countOf(t.id) ? `${countOf(t.id)} looked` : 'not looked at'
              }}<UIcon :name="openThing === t.id ? 'lucide:chevron-down' : 'lucide:chevron-right'"
            /></span>
          </UButton>
          <div v-if="openThing === t.id" class="inside">
            <div class="actions">
              <UButton
                v-for="a in practice.actionsOf(t)"
                :key="a.id"
                color="neutral"
                variant="outline"
                :data-action="a.id"
                :disabled="practice.isDone(t.id, a) || practice.barred(a) !== ''"
                :icon="practice.isDone(t.id, a) ? 'lucide:check' : undefined"
                :title="practice.barred(a)"
                @click="press(t.id, a)"
                >{{ a.label }}
                <span class="small soft">{{ took(practice.costOf(a)) }}</span></UButton
              >
            </div>
            <div
              v-if="pending?.thing === t.id"
              class="safety"
              role="group"
              aria-label="before it is opened"
            >
              <p class="b">First:</p>
              <UButton
                v-for="(s, i) in pending.action.safety"
                :key="s"
                color="neutral"
                variant="outline"
                :icon="i < stepsDone ? 'lucide:check' : undefined"
                :disabled="i !== stepsDone"
                :label="s"
                @click="stepsDone++"
              />
              <UButton color="primary" :label="pending.action.label" @click="open" />
            </div>
            <dl class="facts">
              <template v-for="l in linesOf(t)" :key="l.label">
                <dt class="soft">{{ l.label }}</dt>
                <dd>{{ l.value }}</dd>
              </template>
            </dl>
            <CallFault :calls="callsFor(answers, t)" @call="practice.call" />
          </div>
        </li>
      </ul>
      <aside class="calls">
        <h2>Called</h2>
        <p v-if="round.calls.length === 0" class="small soft">
          Nothing yet. Open a thing, look, and call what is wrong there. What nobody put in costs as
          much as what you miss.
        </p>
        <ul>
          <li v-for="c in round.calls" :key="c.rule + c.subject">
            <span
              ><b>{{ ruleById(c.rule)?.fault }}</b
              ><br /><span class="small soft">{{ named(c.subject) }}, {{ c.severity }}</span></span
            >
            <UButton
              color="neutral"
              variant="ghost"
              icon="lucide:x"
              :aria-label="`take back: ${ruleById(c.rule)?.fault}`"
              @click="practice.uncall(c)"
            />
          </li>
        </ul>
      </aside>
    </div>
  </div>
</template>

<style scoped>
.board {
  display: grid;
  gap: 0.9rem;
}
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1.2rem;
  align-items: center;
  position: sticky;
  top: 0;
  background: var(--paper);
  padding: 0.4rem 0;
  z-index: 5;
}
.head > span {
  display: inline-flex;
  gap: 0.35rem;
  align-items: center;
}
.grow {
  flex: 1;
}
.hint {
  background: var(--touch-tint);
  border-left: 4px solid var(--touch);
  padding: 0.7rem 1rem;
}
.places,
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
.two {
  display: grid;
  gap: 1.2rem;
}
.things > li {
  border-bottom: 1px solid var(--line);
}
.thing {
  width: 100%;
  min-height: 52px;
  display: flex;
  justify-content: space-between;
  text-align: left;
  gap: 1rem;
}
.thing > span {
  display: inline-flex;
  gap: 0.4rem;
  align-items: center;
  white-space: nowrap;
}
.inside {
  display: grid;
  gap: 0.8rem;
  padding: 0.2rem 0 1rem 0.6rem;
}
.safety {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: center;
  background: var(--tint);
  padding: 0.6rem 0.8rem;
}
.b {
  font-weight: 600;
}
.facts {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 0.15rem 1rem;
}
.facts dd {
  font-weight: 600;
}
.calls li {
  display: flex;
  justify-content: space-between;
  gap: 0.6rem;
  border-bottom: 1px solid var(--line);
  padding: 0.4rem 0;
}
@media (min-width: 1000px) {
  .two {
    grid-template-columns: minmax(0, 2fr) minmax(17rem, 1fr);
  }
  .calls {
    position: sticky;
    top: 4rem;
    align-self: start;
  }
}
</style>
