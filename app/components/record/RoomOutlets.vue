<script lang="ts">
import type { Subject } from '#core'

export interface RoomOutletsProps {
  selected?: string
  /** What is known of an outlet, in a few words. */
  stateOf: (outlet: Subject<'outlet'>) => string
}
export interface RoomOutletsEmits {
  select: [outlet: string]
}
</script>

<script setup lang="ts">
import { LAMPS, labelOf, valueOf } from '#core'

const { selected = '', stateOf } = defineProps<RoomOutletsProps>()
const emit = defineEmits<RoomOutletsEmits>()
const job = useJobStore()
const { markOf } = useMarks()
const roomId = ref('')
const rooms = computed(() =>
  job.site.all.room.map(room => ({
    room,
    outlets: job.site.all.outlet.filter(p => valueOf(p, 'room') === room.id),
  })),
)
const lost = computed(() => job.site.all.outlet.filter(p => valueOf(p, 'room') === undefined))
const room = computed(() => rooms.value.find(r => r.room.id === roomId.value) ?? rooms.value[0])
const outlets = computed(() => (roomId.value === 'lost' ? lost.value : (room.value?.outlets ?? [])))
/** What is seen and felt, and is often the same all round a room; nothing that is measured. */
const ALIKE = [
  'slots',
  'deviceAmps',
  'condition',
  'cover',
  'isTamperResistant',
  'appliance',
  'metal',
] as const
const last = ref('')
function pick(id: string) {
  if (selected && selected !== id) last.value = selected
  emit('select', id)
}
const model = computed(() => job.site.get(last.value, 'outlet'))
const alike = (p: Subject<'outlet'>) =>
  model.value
    ? ALIKE.filter(f => valueOf(model.value!, f) !== undefined && p.facts[f].state === 'unseen')
    : []
const same = (p: Subject<'outlet'>) =>
  job.record(
    alike(p).map(f => ({
      act: 'note' as const,
      subject: p.id,
      field: f,
      value: valueOf(model.value!, f)!,
      grade: 'seen' as const,
    })),
  )
const lamp = (p: Subject<'outlet'>, value: string) =>
  job.record([
    {
      act: 'note',
      subject: p.id,
      field: 'lamps',
      value,
      grade: 'measured',
      instrument: 'three-lamp tester',
    },
  ])
/** Kinds one adds with a tap; everything about them is said or tapped after. */
const KINDS = [
  ['receptacle', 'Receptacle', 'i-lucide-plug'],
  ['switch', 'Switch', 'i-lucide-toggle-left'],
  ['luminaire', 'Light', 'i-lucide-lightbulb'],
] as const
function add(type: string) {
  if (!room.value) return
  const id = crypto.randomUUID()
  job.record([
    { act: 'add', subject: id, kind: 'outlet', parent: 'premises' },
    { act: 'note', subject: id, field: 'room', value: room.value.room.id, grade: 'seen' },
    { act: 'note', subject: id, field: 'type', value: type, grade: 'seen' },
    { act: 'note', subject: id, field: 'name', value: nextName(type), grade: 'seen' },
  ])
  pick(id)
}
/** A name nobody in the room has yet. */
function nextName(type: string): string {
  const word = KINDS.find(k => k[0] === type)?.[1] ?? type
  const taken = new Set(room.value?.outlets.map(o => valueOf(o, 'name')))
  let n = 1
  while (taken.has(`${word} ${n}`)) n++
  return `${word} ${n}`
}
const circuitOf = (p: Subject<'outlet'>) => {
  const c = job.site.get(valueOf(p, 'circuit'), 'circuit')
  return c ? labelOf(job.site, c).replace(/^.*?, (?=space )/, '') : 'circuit not found'
}
</script>

<template>
  <div class="rooms">
    <div class="tabs">
      <button
        v-for="r in rooms"
        :key="r.room.id"
        type="button"
        class="chip"
        :aria-pressed="roomId !== 'lost' && r === room"
        @click="roomId = r.room.id"
      >
        {{ valueOf(r.room, 'name') ?? 'room' }} <b>{{ r.outlets.length }}</b></button
      ><button
        v-if="lost.length"
        type="button"
        class="chip quiet"
        :aria-pressed="roomId === 'lost'"
        @click="roomId = 'lost'"
      >
        no room yet <b>{{ lost.length }}</b>
      </button>
    </div>
    <ul>
      <li v-for="p in outlets" :key="p.id" :class="{ on: selected === p.id }">
        <button type="button" class="head" :data-outlet="p.id" @click="pick(p.id)">
          <SeverityMark v-if="markOf(p)" :kind="markOf(p)!" /><span
            ><b>{{ valueOf(p, 'name') ?? p.id }}</b
            ><span class="small soft"> · {{ circuitOf(p) }}</span
            ><span class="small soft block">{{ stateOf(p) }}</span></span
          >
        </button>
        <div
          v-if="selected === p.id && valueOf(p, 'type') === 'receptacle'"
          class="pad"
          aria-label="lamp tester"
        >
          <button
            v-for="l in LAMPS"
            :key="l"
            type="button"
            class="chip"
            :aria-pressed="valueOf(p, 'lamps') === l"
            @click="lamp(p, l)"
          >
            {{ l }}
          </button>
          <button v-if="alike(p).length" type="button" class="plain" @click="same(p)">
            same as {{ valueOf(model, 'name') ?? 'the last' }}
          </button>
        </div>
      </li>
    </ul>
    <p v-if="roomId !== 'lost' && !outlets.length" class="soft">
      No outlet of this room is recorded yet. Add them with a tap, or say them all: “three
      receptacles, three slot, first is GFCI”.
    </p>
    <div v-if="roomId !== 'lost' && room" class="add">
      <UButton
        v-for="[type, word, icon] in KINDS"
        :key="type"
        :icon="icon"
        :label="word"
        variant="outline"
        size="lg"
        @click="add(type)"
      />
    </div>
    <SpokenLine
      v-if="roomId !== 'lost' && room"
      :place="room.room.id"
      :selected="selected || undefined"
      placeholder="two receptacles, three slot, tester says correct"
    />
  </div>
</template>

<style scoped>
.tabs {
  display: flex;
  flex-wrap: wrap;
  gap: 0.35rem;
  margin-bottom: 0.8rem;
}
ul {
  display: grid;
  max-width: 46rem;
}
li {
  border-bottom: 1px solid var(--line);
}
li.on {
  background: var(--touch-tint);
}
.head {
  display: flex;
  gap: 0.7rem;
  align-items: center;
  width: 100%;
  min-height: 56px;
  text-align: left;
  padding: 0.3rem 0.4rem;
  cursor: pointer;
}
.head:hover b {
  color: var(--touch);
}
.block {
  display: block;
}
.add {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  margin: 0.9rem 0;
}
.pad {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  padding: 0 0.4rem 0.7rem;
}
.pad .chip {
  min-height: 52px;
}
@media (max-width: 900px) {
  .tabs {
    flex-wrap: nowrap;
    overflow-x: auto;
    scrollbar-width: none;
  }
  .tabs .chip {
    flex: none;
  }
}
</style>
