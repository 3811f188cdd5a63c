<script setup lang="ts">
import { labelOf, planRounds, readRounds, reconcile, settle, valueOf, type Seen } from '#core'

const job = useJobStore()
const panels = computed(() => job.site.all.enclosure.filter(e => valueOf(e, 'type') === 'panel'))
const panelId = ref('')
const panel = computed(() => job.site.get(panelId.value, 'enclosure') ?? panels.value[0])
const branch = computed(() =>
  panel.value
    ? job.site
        .children(panel.value, 'breaker')
        .filter(b => !['spare', 'feeder', 'main'].includes(valueOf(b, 'role') ?? ''))
    : [],
)
const keepOn = ref(new Set<string>())
const plan = computed(() =>
  planRounds(branch.value.map(b => ({ id: b.id, mustStayOn: keepOn.value.has(b.id) }))),
)
const outlets = computed(() =>
  job.site.all.outlet.filter(
    p =>
      valueOf(p, 'circuit') === undefined ||
      branch.value.some(
        b => b.id === valueOf(job.site.get(valueOf(p, 'circuit'), 'circuit'), 'fedBy'),
      ),
  ),
)
const chosen = ref<string[]>([])
const seen = ref<Record<string, Seen[]>>({})
const shortSpace = (id: string) =>
  `${valueOf(job.site.get(id, 'breaker'), 'space') ?? '?'}${valueOf(job.site.get(id, 'breaker'), 'half') ?? ''}`
function toggle(outlet: string, round: number) {
  const list = [...(seen.value[outlet] ?? plan.value.rounds.map(() => undefined))]
  list[round] = list[round] === undefined ? 'dead' : list[round] === 'dead' ? 'live' : undefined
  seen.value = { ...seen.value, [outlet]: list }
}
function hold(id: string) {
  const next = new Set(keepOn.value)
  if (!next.delete(id)) next.add(id)
  keepOn.value = next
  seen.value = {}
}
const results = computed(
  () =>
    new Map(
      readRounds(
        plan.value,
        Object.fromEntries(
          chosen.value.map(id => [id, seen.value[id] ?? plan.value.rounds.map(() => undefined)]),
        ),
      ).map(t => [t.outlet, t]),
    ),
)
const settled = ref<Record<string, string>>({})
const outcome = (id: string) => {
  const t = results.value.get(id)
  return t && settled.value[id] ? settle(t, settled.value[id]) : t
}
/** The breaker an outlet was found on. */
function foundOn(id: string): string | undefined {
  const o = outcome(id)
  return o?.kind === 'found' ? o.breaker : undefined
}
/** Breakers left where one look does not fit the rest, once every round is done. */
function doubtful(id: string): readonly string[] {
  const o = outcome(id)
  return o?.kind === 'ask again' && seen.value[id]?.every(x => x) ? o.candidates : []
}
function stillOneOf(id: string): string {
  const o = outcome(id)
  return o?.kind === 'one of' ? `one of ${o.breakers.map(shortSpace).join(', ')}` : '–'
}
const CARD_COLUMNS = [
  { accessorKey: 'space', header: 'Space' },
  { accessorKey: 'written', header: 'Directory' },
  { accessorKey: 'found', header: 'Found' },
  { accessorKey: 'state', header: '' },
]
const roundColumns = computed(() => [
  { accessorKey: 'id', header: 'Outlet' },
  ...plan.value.rounds.map((r, k) => ({ id: `round${k}`, header: String(r.number) })),
  { id: 'on', header: 'On' },
])
function keep(outlet: string, breaker: string) {
  const circuit = job.site.circuitsOf({ id: breaker } as never)[0]
  const id = circuit?.id ?? crypto.randomUUID()
  job.record([
    ...(circuit
      ? []
      : [
          { act: 'add' as const, subject: id, kind: 'circuit' as const, parent: 'premises' },
          {
            act: 'note' as const,
            subject: id,
            field: 'fedBy',
            value: breaker,
            grade: 'measured' as const,
          },
        ]),
    {
      act: 'note',
      subject: outlet,
      field: 'circuit',
      value: id,
      grade: 'measured',
      instrument: 'switching rounds',
    },
  ])
}
const printCard = () => window.print()
const card = computed(() => (panel.value ? reconcile(job.site, panel.value) : undefined))
const TONE: Record<string, 'repair' | 'undecided' | 'clear' | 'note'> = {
  agrees: 'clear',
  contradicted: 'repair',
  'no entry': 'note',
  'nothing found on it': 'undecided',
  spare: 'clear',
}
function openPanel(id: string) {
  panelId.value = id
  seen.value = {}
}
</script>

<template>
  <div class="trace">
    <div class="row">
      <UButton
        v-for="p in panels"
        :key="p.id"
        color="neutral"
        variant="outline"
        class="chip"
        :aria-pressed="p === panel"
        @click="openPanel(p.id)"
      >
        {{ valueOf(p, 'name') ?? 'panel' }}
      </UButton>
    </div>
    <p v-if="branch.length < 2" class="soft">Record its breakers first.</p>
    <template v-else>
      <p>
        <b class="big">{{ plan.tripsAtMost }}</b> trips to the panel at most tell
        {{ branch.length }} breakers apart: {{ plan.rounds.length }} rounds, and one to settle what
        does not fit.
      </p>
      <p class="small soft">Must stay on (medical, alarms, freezer, pump):</p>
      <div class="row">
        <UButton
          v-for="b in branch"
          :key="b.id"
          color="neutral"
          variant="outline"
          class="chip mini"
          :aria-pressed="keepOn.has(b.id)"
          :title="labelOf(job.site, b)"
          @click="hold(b.id)"
        >
          {{ shortSpace(b.id) }}
        </UButton>
      </div>
      <ol class="rounds">
        <li v-for="r in plan.rounds" :key="r.number">
          <b>Round {{ r.number }}<span v-if="r.isCheck" class="soft"> check</span></b> off:
          {{ r.off.map(shortSpace).join(', ') }}
        </li>
      </ol>
      <div class="small soft">
        Outlets to trace
        <USelectMenu
          v-model="chosen"
          multiple
          class="field"
          value-key="id"
          placeholder="add an outlet"
          aria-label="add an outlet"
          :items="outlets.map(o => ({ id: o.id, label: labelOf(job.site, o) }))"
        />
      </div>
      <div v-if="chosen.length" class="scroll">
        <UTable :data="chosen.map(id => ({ id }))" :columns="roundColumns">
          <template #id-cell="{ row }">{{
            labelOf(job.site, job.house.subjects.get(row.original.id)!)
          }}</template>
          <template v-for="(r, k) in plan.rounds" :key="r.number" #[`round${k}-cell`]="{ row }">
            <UButton
              color="neutral"
              variant="ghost"
              class="bit bare"
              :class="seen[row.original.id]?.[k]"
              :aria-label="`round ${r.number}: ${seen[row.original.id]?.[k] ?? 'not looked'}`"
              @click="toggle(row.original.id, k)"
            >
              {{ seen[row.original.id]?.[k] ?? '–' }}
            </UButton>
          </template>
          <template #on-cell="{ row }">
            <template v-if="foundOn(row.original.id)"
              ><b>space {{ shortSpace(foundOn(row.original.id)!) }}</b>
              <UButton
                color="primary"
                variant="link"
                class="touch"
                @click="keep(row.original.id, foundOn(row.original.id)!)"
              >
                record
              </UButton></template
            >
            <template v-else-if="doubtful(row.original.id).length"
              ><span class="small why"
                >one look was wrong: plug in a radio and switch off one after another</span
              ><span class="row"
                ><UButton
                  v-for="c in doubtful(row.original.id)"
                  :key="c"
                  color="neutral"
                  variant="outline"
                  class="chip mini"
                  @click="settled = { ...settled, [row.original.id]: c }"
                >
                  {{ shortSpace(c) }}
                </UButton></span
              ></template
            >
            <span v-else class="small soft">{{ stillOneOf(row.original.id) }}</span>
          </template>
        </UTable>
      </div>
    </template>
    <section v-if="card" class="card no-print">
      <h2 class="cardhead">
        The directory beside what was found
        <UButton color="neutral" variant="outline" class="plain" @click="printCard">
          <UIcon name="lucide:printer" /> Print the new card
        </UButton>
      </h2>
      <div class="scroll">
        <UTable :data="[...card.entries]" :columns="CARD_COLUMNS">
          <template #written-cell="{ row }">{{ row.original.written ?? '–' }}</template>
          <template #found-cell="{ row }">{{ row.original.found || '–' }}</template>
          <template #state-cell="{ row }">
            <span class="state"
              ><SeverityMark :kind="TONE[row.original.state]!" :size="13" /><span class="small">{{
                row.original.state
              }}</span></span
            >
          </template>
        </UTable>
      </div>
      <p v-if="card.doubles.length" class="small why">
        Written twice: {{ card.doubles.join(', ') }}
      </p>
      <p v-if="card.orphans.length" class="small why">
        No breaker found for: {{ card.orphans.join(', ') }}
      </p>
    </section>
    <section v-if="card" class="newcard">
      <h2>Circuit directory · {{ valueOf(panel, 'name') ?? 'panel' }}</h2>
      <!-- Printed and hung on the panel door: a plain table of the document, not of the interface. -->
      <table>
        <tbody>
          <tr v-for="e in card.entries" :key="e.breaker">
            <td class="no">{{ e.space }}</td>
            <td>
              {{ e.state === 'spare' ? 'spare' : e.found || `${e.written ?? ''} (not traced)` }}
            </td>
          </tr>
        </tbody>
      </table>
      <p class="small">
        Traced {{ valueOf(job.site.premises, 'visitedOn') ?? '' }} by {{ job.assessor }}
      </p>
    </section>
  </div>
</template>

<style scoped>
.cardhead {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 0.5rem;
  margin-bottom: 0.4rem;
}
.newcard {
  display: none;
}
@media print {
  .trace > :not(.newcard) {
    display: none;
  }
  .newcard {
    display: block;
  }
  .newcard table {
    max-width: 34rem;
  }
  .newcard td {
    border: 1px solid #000;
    padding: 0.35rem 0.6rem;
  }
  .no {
    width: 3.5rem;
    font-weight: 700;
  }
}
.trace {
  display: grid;
  gap: 0.8rem;
  max-width: 62rem;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 0.35rem;
  align-items: center;
}
.big {
  font-size: 1.6rem;
}
.mini {
  min-width: 44px;
  padding: 0 0.5rem;
}
.rounds {
  display: grid;
  gap: 0.25rem;
}
.scroll {
  overflow-x: auto;
}
table {
  width: 100%;
}
th {
  text-align: left;
  color: var(--soft);
  font-weight: 600;
  font-size: 0.85rem;
}
td,
th {
  padding: 0.3rem 0.6rem 0.3rem 0;
  border-bottom: 1px solid var(--line);
  vertical-align: top;
}
.bit {
  min-width: 52px;
  min-height: 44px;
  border: 1.5px dashed var(--line);
  border-radius: 3px;
  cursor: pointer;
}
.bit.dead {
  background: var(--ink);
  color: var(--paper);
  border-style: solid;
}
.bit.live {
  border: 1.5px solid var(--touch);
  color: var(--touch);
}
.state {
  display: inline-flex;
  gap: 0.4rem;
  align-items: center;
  white-space: nowrap;
}
.why {
  color: var(--repair);
}
.card {
  margin-top: 0.6rem;
}
.field {
  width: auto;
}
</style>
