<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { gfciOf, groundOf, resetOf, labelOf, PREMISES_ID, valueOf, type Subject } from '#core'

const { job, problem, isLoading, load } = useOpenJob()
const { markOf } = useMarks()
const { shownAt } = useRooms()
const route = useRoute()
const router = useRouter()
const isNarrow = useMediaQuery('(max-width: 900px)')
const isMarginOpen = ref(false)
const selectedId = ref('')

const groups = computed(() =>
  job.site.all.enclosure
    .map(panel => ({
      panel,
      circuits: job.site
        .children(panel, 'breaker')
        .flatMap(b =>
          job.site.circuitsOf(b).map(circuit => ({ circuit, space: valueOf(b, 'space') ?? 99 })),
        )
        .sort((a, b) => a.space - b.space),
    }))
    .filter(g => g.circuits.length > 0),
)
const circuitItems = computed(() =>
  groups.value.map(g => [
    { type: 'label' as const, label: valueOf(g.panel, 'name') ?? 'panel', value: '' },
    ...g.circuits.map(c => ({
      value: c.circuit.id as string,
      label: `${c.space === 99 ? '?' : c.space} · ${valueOf(c.circuit, 'label') ?? 'no name'}`,
    })),
  ]),
)
const circuit = computed(
  () =>
    job.site.get(String(route.query.circuit ?? ''), 'circuit') ??
    groups.value[0]?.circuits.find(c => job.site.outletsOf(c.circuit).length > 2)?.circuit ??
    groups.value[0]?.circuits[0]?.circuit,
)
const breakerName = computed(() =>
  breaker.value ? labelOf(job.site, breaker.value).replace(/ · .*/, '') : 'breaker not found',
)
const breaker = computed(
  () => circuit.value && job.site.get(valueOf(circuit.value, 'fedBy'), 'breaker'),
)
const rows = computed(() => (circuit.value ? chainRows(job.site, circuit.value) : []))
const selected = computed(() => job.house.subjects.get(selectedId.value))
/** What is on screen: the outlets of a room, and the room; or those of a circuit. */
const within = computed(() => {
  if (view.value === 'circuits') return new Set<string>(rows.value.map(r => r.outlet.id))
  const { room, outlets } = shownAt(roomId.value)
  return new Set<string>([...(room ? [room.id] : []), ...outlets.map(o => o.id)])
})
const open = computed(() => [...job.results.values()].filter(r => within.value.has(r.subject.id)))

/** Rooms are walked; a circuit is asked for by name. */
const view = computed(() =>
  route.query.view === 'circuits' || route.query.circuit ? 'circuits' : 'rooms',
)
const roomId = computed(() => String(route.query.room ?? ''))
const toRoom = (id: string) => router.replace({ query: { view: 'rooms', room: id } })
watch(
  () => route.query.outlet,
  id => {
    if (id) selectedId.value = String(id)
  },
  { immediate: true },
)
function openRecord(id: string) {
  selectedId.value = id
  isMarginOpen.value = true
}
const toView = (v: string) => router.replace({ query: { view: v } })
function pickCircuit(id: string) {
  selectedId.value = ''
  void router.replace({ query: { view: 'circuits', circuit: id } })
}
function select(id: string) {
  selectedId.value = id
  if (id && isNarrow.value) isMarginOpen.value = true
}
/** Adds the next receptacle on the chain, like the one before it. */
function add() {
  if (!circuit.value) return
  const last = rows.value.filter(r => r.isPlaced).at(-1)?.outlet
  const id = crypto.randomUUID()
  const room = valueOf(last, 'room')
  const roomName = valueOf(job.site.get(room, 'room'), 'name') ?? 'Receptacle'
  const count = job.site.all.outlet.filter(p => valueOf(p, 'room') === room).length
  const drafts: Parameters<typeof job.record>[0][number][] = [
    { act: 'add', subject: id, kind: 'outlet', parent: PREMISES_ID },
  ]
  const note = (field: string, value: string) =>
    drafts.push({ act: 'note', subject: id, field, value, grade: 'seen' })
  note('circuit', circuit.value.id)
  note('after', last?.id ?? 'panel')
  note('type', 'receptacle')
  note('name', `${roomName} ${count + 1}`)
  if (room) note('room', room)
  job.record(drafts)
  select(id)
}
/** Where the device is reset that protects this one: people look for it in the wrong room. */
const reset = (outlet: Subject<'outlet'>) => {
  const device = resetOf(job.site, outlet)
  return device ? `reset at ${labelOf(job.site, device)}` : 'GFCI ahead'
}
const state = (outlet: Subject<'outlet'>) => {
  const type = valueOf(outlet, 'type')
  if (type !== 'receptacle') return type ?? 'not seen what it is'
  const slots = valueOf(outlet, 'slots')
  const ground = { good: 'grounded', none: 'no ground' }[groundOf(job.site, outlet).value ?? 'none']
  const gfci = { own: 'GFCI here', ahead: reset(outlet), breaker: 'GFCI at the breaker', none: '' }[
    gfciOf(job.site, outlet).value ?? 'none'
  ]
  return [
    slots ? `${slots} slots` : 'face not seen',
    slots === 'two'
      ? ''
      : groundOf(job.site, outlet).value === undefined
        ? 'ground not settled'
        : ground,
    gfciOf(job.site, outlet).value === undefined ? 'protection not settled' : gfci,
  ]
    .filter(Boolean)
    .join(' · ')
}
</script>

<template>
  <AppShell
    v-model:margin="isMarginOpen"
    :title="
      view === 'rooms'
        ? 'Outlets by room'
        : circuit
          ? (valueOf(circuit, 'label') ?? 'Circuit')
          : 'Outlets'
    "
    :subtitle="
      view === 'rooms'
        ? `${job.site.all.outlet.length} outlets`
        : circuit
          ? `${breakerName} · ${rows.length} outlets`
          : ''
    "
    :margin-note="
      selected
        ? labelOf(job.site, selected)
        : view === 'rooms' && job.site.all.room.length === 0
          ? 'no room yet'
          : view === 'rooms'
            ? `${open.filter(isFinding).length} found in this room`
            : `${open.filter(isFinding).length} found on this circuit`
    "
  >
    <PageState :is-loading="isLoading" :problem="problem" @again="load">
      <nav class="views" aria-label="order of the outlets">
        <UButton
          v-for="v in ['rooms', 'circuits'] as const"
          :key="v"
          color="neutral"
          variant="ghost"
          class="tab bare"
          :aria-current="view === v"
          @click="toView(v)"
        >
          {{ v === 'circuits' ? 'by circuit' : 'by room' }}
        </UButton>
        <UButton
          color="neutral"
          variant="ghost"
          class="tab bare"
          :to="`/jobs/${job.jobId}/conductors`"
          >single conductors</UButton
        >
      </nav>
      <RoomOutlets
        v-if="view === 'rooms'"
        :selected="selectedId"
        :room="roomId"
        @select="id => (selectedId = id)"
        @room="toRoom"
        @more="openRecord"
      />
      <div v-else-if="!groups.length" class="empty">
        <h2>No circuits yet</h2>
        <p class="soft">
          Record a breaker with its name in Panel first; its circuit then appears here.
        </p>
        <NuxtLink :to="`/jobs/${job.jobId}/panel`" class="go">To the panel</NuxtLink>
      </div>
      <div v-else-if="groups.length" class="split">
        <div v-if="isNarrow" class="pickrow">
          <label class="small soft" for="circuit">circuit</label>
          <USelectMenu
            id="circuit"
            class="field"
            value-key="value"
            :items="circuitItems"
            :model-value="circuit?.id"
            @update:model-value="pickCircuit"
          />
        </div>
        <nav v-else class="list" aria-label="circuits">
          <template v-for="g in groups" :key="g.panel.id">
            <h2 class="small soft">{{ valueOf(g.panel, 'name') }}</h2>
            <UButton
              v-for="c in g.circuits"
              :key="c.circuit.id"
              color="neutral"
              variant="ghost"
              class="item bare"
              :aria-current="c.circuit === circuit"
              @click="pickCircuit(c.circuit.id)"
            >
              <span class="space">{{ c.space === 99 ? '?' : c.space }}</span><span class="what">{{
                valueOf(c.circuit, 'label') ?? 'no name'
              }}</span>
              <SeverityMark
                v-if="
                  worstMark(
                    job.site.outletsOf(c.circuit).flatMap(p => job.bySubject.get(p.id) ?? []),
                  )
                "
                :kind="
                  worstMark(
                    job.site.outletsOf(c.circuit).flatMap(p => job.bySubject.get(p.id) ?? []),
                  )!
                "
                :size="12"
              />
            </UButton>
          </template>
        </nav>
        <section class="chain" aria-label="chain from the breaker">
          <NuxtLink
            v-if="breaker"
            :to="{ path: `/jobs/${job.jobId}/panel`, query: { at: breaker.parent } }"
            class="source"
          >
            <span class="plate"
              ><b>{{ valueOf(breaker, 'ratingAmps') ?? '?' }}</b></span
            >
            <span
              ><b>space {{ valueOf(breaker, 'space') ?? '?' }}</b
              ><span class="small soft">
                · {{ valueOf(breaker, 'protection') ?? 'protection not seen' }}</span
              ></span
            >
          </NuxtLink>
          <ol>
            <li
              v-for="(r, i) in rows"
              :key="r.outlet.id"
              :class="{
                shaded: r.isProtected,
                loose: !r.isPlaced,
                picked: r.outlet.id === selectedId,
              }"
              :style="{ marginLeft: `${r.depth * 26}px` }"
            >
              <p v-if="!r.isPlaced && (i === 0 || rows[i - 1]!.isPlaced)" class="small soft where">
                Place on the circuit not known
              </p>
              <UButton
                color="neutral"
                variant="ghost"
                class="row bare"
                :data-outlet="r.outlet.id"
                @click="select(r.outlet.id)"
              >
                <span class="wire" aria-hidden="true" />
                <OutletFace :outlet="r.outlet" :site="job.site" />
                <span class="body"
                  ><b>{{ valueOf(r.outlet, 'name') ?? 'outlet' }}</b
                  ><span class="small soft">{{ state(r.outlet) }}</span></span
                >
                <SeverityMark v-if="markOf(r.outlet)" :kind="markOf(r.outlet)!" />
              </UButton>
            </li>
          </ol>
          <p v-if="rows.some(r => r.isProtected)" class="small soft key">
            <i /> protected against shock by a GFCI
          </p>
          <UButton color="neutral" variant="outline" class="plain add" @click="add">
            <UIcon name="lucide:plus" /> next receptacle on this circuit
          </UButton>
        </section>
      </div>
    </PageState>
    <template #margin>
      <JudgmentMargin :subject="selected" :within="within" @pick="select" />
    </template>
  </AppShell>
</template>

<style scoped>
.views {
  display: flex;
  gap: 1.2rem;
  margin-bottom: 0.6rem;
}
.views .tab {
  min-height: 40px;
  font-weight: 600;
  color: var(--soft);
  border-bottom: 3px solid transparent;
  cursor: pointer;
}
.views .tab[aria-current='true'] {
  color: var(--ink);
  border-bottom-color: var(--touch);
}
.split {
  display: grid;
  grid-template-columns: 212px minmax(0, 1fr);
  gap: 1.6rem;
  align-items: start;
}
.list {
  position: sticky;
  top: 0;
  max-height: calc(100dvh - 110px);
  overflow-y: auto;
  padding-right: 0.4rem;
}
.list h2 {
  margin: 0.6rem 0 0.2rem;
  font-weight: 400;
}
.item {
  display: grid;
  grid-template-columns: 1.7rem 1fr auto;
  gap: 0.3rem;
  align-items: center;
  width: 100%;
  min-height: 36px;
  text-align: left;
  cursor: pointer;
  padding: 0 0.4rem;
  border-radius: 3px;
}
.item:hover {
  color: var(--touch);
}
.item[aria-current='true'] {
  background: var(--tint);
  font-weight: 700;
}
.space {
  color: var(--soft);
}
.what {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.source {
  display: inline-flex;
  align-items: center;
  gap: 0.8rem;
  min-height: 48px;
}
.plate {
  width: 60px;
  height: 40px;
  border-radius: 3px;
  background: var(--device);
  color: var(--device-ink);
  display: grid;
  place-items: center;
  font-size: 1.2rem;
}
ol {
  list-style: none;
}
.row {
  display: grid;
  grid-template-columns: 30px 52px 1fr auto;
  align-items: center;
  gap: 0.6rem;
  width: 100%;
  min-height: 62px;
  text-align: left;
  cursor: pointer;
  padding-right: 0.7rem;
  border-radius: 4px;
}
.wire {
  align-self: stretch;
  margin-left: 27px;
  width: 4px;
  background: #20262d;
}
.dark .wire {
  background: #8e969e;
}
.loose .wire {
  background: repeating-linear-gradient(var(--soft) 0 5px, transparent 5px 9px);
}
li.shaded > .row {
  background: var(--cool-tint);
}
li.picked > .row {
  outline: 3px solid var(--touch);
  outline-offset: -3px;
}
.row:hover b {
  color: var(--touch);
}
.body {
  display: grid;
}
.where {
  padding: 0.7rem 0 0.2rem;
}
.key {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  margin-top: 0.5rem;
}
.key i {
  width: 20px;
  height: 12px;
  background: var(--cool-tint);
  border: 1px solid var(--cool);
}
.add {
  margin-top: 0.8rem;
}
.empty {
  display: grid;
  gap: 0.8rem;
  justify-items: start;
  padding: 2rem 0;
}
@media (max-width: 900px) {
  .split {
    display: block;
  }
  .pickrow {
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 0.6rem;
    align-items: center;
    margin-bottom: 0.6rem;
  }
}
</style>
