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
  job.site.all.room
    .map(room => ({
      room,
      outlets: job.site.all.outlet.filter(p => valueOf(p, 'room') === room.id),
    }))
    .filter(r => r.outlets.length > 0),
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
