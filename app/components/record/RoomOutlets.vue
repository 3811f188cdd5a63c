<script lang="ts">
export interface RoomOutletsProps {
  selected?: string
  room?: string
}
export interface RoomOutletsEmits {
  select: [outlet: string]
  room: [room: string]
  /** The whole record of the outlet is asked for. */
  more: [outlet: string]
}
</script>

<script setup lang="ts">
import { VueDraggable } from 'vue-draggable-plus'
import { valueOf } from '#core'

const { selected = '', room = '' } = defineProps<RoomOutletsProps>()
const emit = defineEmits<RoomOutletsEmits>()
const job = useJobStore()
const { rooms, shownAt, outletsOf, reorder, addRoom, addOutlets, placeName, alikeOf } = useRooms()
const { visit, attest } = useVisit()
const roomList = computed({
  get: () => rooms.value,
  set: next => reorder(next.map(r => r.id)),
})
const lost = computed(() => outletsOf(LOST))
const chosen = computed(() => rooms.value.find(r => r.id === room) ?? rooms.value[0])
const isLost = computed(() => room === LOST || (!chosen.value && lost.value.length > 0))
const outlets = computed(() => shownAt(room).outlets)
const outlet = computed(() => {
  const at = job.site.get(selected, 'outlet')
  return at && outlets.value.includes(at) ? at : undefined
})
const stops = computed(() => new Map(visit.value.stops.map(s => [`${s.stage} ${s.place.id}`, s])))
const stopOf = (id: string) => stops.value.get(`rooms ${id}`)
const stop = computed(() => (chosen.value && !isLost.value ? stopOf(chosen.value.id) : undefined))
const left = (id: string) => stopOf(id)?.answers ?? 0
/** Uses one taps in almost every house; others are said in the room's own record. */
const USES = [
  'bedroom',
  'living',
  'kitchen',
  'bathroom',
  'laundry',
  'hallway',
  'garage',
  'basement, unfinished',
  'outdoors',
] as const
const isAddingRoom = ref(false)
function newRoom(use: string) {
  isAddingRoom.value = false
  emit('room', addRoom(use))
}
function add(type: string, count: number) {
  if (!chosen.value || isLost.value) return
  const ids = addOutlets(chosen.value.id, type, count)
  if (ids[0]) emit('select', ids[0])
}
/** After a reading the hand moves on: the next receptacle around the room that has none. */
function goOn() {
  const i = outlets.value.findIndex(o => o.id === selected)
  const isNext = (o: (typeof outlets.value)[number]) =>
    o.id !== selected && valueOf(o, 'type') === 'receptacle' && o.facts.lamps.state === 'unseen'
  const next = [...outlets.value.slice(i + 1), ...outlets.value.slice(0, Math.max(0, i))].find(
    isNext,
  )
  if (next) emit('select', next.id)
}
const alike = computed(() => (outlet.value ? alikeOf(outlet.value) : []))
/** Outlets of the same circuit, wherever they are: the tree beside the room. */
const circuit = computed(() => job.site.get(valueOf(outlet.value, 'circuit'), 'circuit'))
const tree = computed(() => (circuit.value ? chainRows(job.site, circuit.value) : []))
const roomName = (id: string | undefined) => valueOf(job.site.get(id, 'room'), 'name')
function goTo(id: string) {
  const at = job.site.get(id, 'outlet')
  emit('room', valueOf(at, 'room') ?? LOST)
  emit('select', id)
}
</script>

<template>
  <div class="rooms">
    <div class="tabs">
      <VueDraggable
        v-model="roomList"
        class="order"
        :animation="150"
        :delay="250"
        :delay-on-touch-only="true"
      >
        <UButton
          v-for="r in roomList"
          :key="r.id"
          color="neutral"
          variant="outline"
          class="chip"
          :aria-pressed="!isLost && r.id === chosen?.id"
          :data-room="r.id"
          @click="emit('room', r.id)"
        >
          <span class="name">{{ valueOf(r, 'name') ?? 'room' }}</span>
          <b v-if="left(r.id)" class="small" :title="`${left(r.id)} answers left here`">{{
            left(r.id)
          }}</b><UIcon v-else-if="outletsOf(r.id).length" name="lucide:check" />
        </UButton>
      </VueDraggable>
      <UButton
        v-if="lost.length"
        color="neutral"
        variant="outline"
        class="chip quiet"
        :aria-pressed="isLost"
        @click="emit('room', LOST)"
        >no room yet <b>{{ lost.length }}</b></UButton
      >
      <UButton
        color="primary"
        variant="outline"
        class="chip"
        data-testid="add-room"
        :aria-expanded="isAddingRoom"
        @click="isAddingRoom = !isAddingRoom"
        ><UIcon name="lucide:plus" /> room</UButton
      >
    </div>
    <div class="body">
      <div v-if="isAddingRoom || !rooms.length" class="uses" role="group" aria-label="which room">
        <p v-if="!rooms.length" class="soft">
          Begin with the room by the front door. Then add its outlets as you pass them.
        </p>
        <UButton
          v-for="u in USES"
          :key="u"
          color="neutral"
          variant="outline"
          class="chip"
          :data-use="u"
          @click="newRoom(u)"
          >{{ u }}</UButton
        >
      </div>
      <template v-if="chosen || isLost">
        <RoomStrip
          :outlets="outlets"
          :selected="selected"
          :is-fixed="isLost"
          @pick="id => emit('select', id)"
          @add="add"
          @order="reorder"
        />
        <div class="two">
          <div class="now">
            <OutletQuick
              v-if="outlet"
              :outlet="outlet"
              :alike="alike.length"
              @read="goOn"
              @alike="job.record([...alike])"
              @where="w => placeName(outlet!, w)"
              @more="emit('more', outlet!.id)"
            />
            <p v-else-if="outlets.length" class="soft">
              Touch the outlet you stand at. What is ordinary about the rest is attested at once
              below.
            </p>
            <p v-else class="soft">
              No outlet of this room is recorded yet. Add them with a tap, or say them all: “three
              receptacles, three slot, first is GFCI”.
            </p>
            <SpokenLine
              v-if="!isLost && chosen"
              :place="chosen.id"
              :selected="outlet?.id"
              placeholder="two receptacles, three slot, tester says correct"
            />
            <AttestCard
              v-if="stop?.attestation"
              :attestation="stop.attestation"
              @attest="attest(stop!.attestation!)"
            />
          </div>
          <nav v-if="tree.length" class="tree" aria-label="the circuit of this outlet">
            <h3 class="small soft">On the same circuit</h3>
            <UButton
              v-for="r in tree"
              :key="r.outlet.id"
              color="neutral"
              variant="ghost"
              class="node bare"
              :class="{ on: r.outlet.id === selected, shaded: r.isProtected }"
              :style="{ paddingLeft: `${0.4 + r.depth * 0.8}rem` }"
              @click="goTo(r.outlet.id)"
            >
              <OutletFace :outlet="r.outlet" :site="job.site" :size="24" />
              <span class="small"
                >{{ valueOf(r.outlet, 'name') ?? 'outlet'
                }}<span class="soft block">{{ roomName(valueOf(r.outlet, 'room')) }}</span></span
              >
            </UButton>
          </nav>
        </div>
      </template>
    </div>
  </div>
</template>

<style scoped>
.rooms {
  display: grid;
  grid-template-columns: 11rem minmax(0, 1fr);
  gap: 1.4rem;
  align-items: start;
}
.body {
  display: grid;
  gap: 0.9rem;
}
.tabs,
.order,
.uses {
  display: flex;
  flex-wrap: wrap;
  gap: 0.35rem;
}
.uses p {
  width: 100%;
}
/* A house has two dozen rooms: one under the other they are found at a glance, and dragged into walking order. */
.tabs {
  flex-direction: column;
  flex-wrap: nowrap;
  max-height: calc(100dvh - 11rem);
  overflow-y: auto;
}
.order {
  flex-direction: column;
  flex-wrap: nowrap;
}
.tabs :deep(.chip) {
  width: 100%;
  flex: none;
}
.name {
  flex: 1;
  text-align: left;
  overflow: hidden;
  text-overflow: ellipsis;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 11rem;
  gap: 1.4rem;
  align-items: start;
}
.now {
  display: grid;
  gap: 0.9rem;
}
.tree {
  border-left: 1px solid var(--line);
  padding-left: 0.8rem;
  display: grid;
  gap: 0.1rem;
}
.node {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  min-height: 44px;
  text-align: left;
  width: 100%;
}
.node.shaded {
  background: var(--cool-tint);
}
.node.on {
  outline: 2px solid var(--touch);
  outline-offset: -2px;
}
.block {
  display: block;
}
@media (max-width: 900px) {
  .rooms {
    grid-template-columns: minmax(0, 1fr);
    gap: 0.9rem;
  }
  .tabs {
    flex-direction: row;
    max-height: none;
    overflow-x: auto;
    scrollbar-width: none;
  }
  .order {
    flex-direction: row;
  }
  .tabs :deep(.chip) {
    width: auto;
  }
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
  .tree {
    border-left: 0;
    border-top: 1px solid var(--line);
    padding: 0.6rem 0 0;
  }
}
</style>
