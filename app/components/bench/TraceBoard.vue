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
      <button
        v-for="p in panels"
        :key="p.id"
        type="button"
        class="chip"
        :aria-pressed="p === panel"
        @click="openPanel(p.id)"
      >
        {{ valueOf(p, 'name') ?? 'panel' }}
      </button>
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
        <button
          v-for="b in branch"
          :key="b.id"
          type="button"
          class="chip mini"
          :aria-pressed="keepOn.has(b.id)"
          :title="labelOf(job.site, b)"
          @click="hold(b.id)"
        >
          {{ shortSpace(b.id) }}
        </button>
      </div>
      <ol class="rounds">
        <li v-for="r in plan.rounds" :key="r.number">
          <b>Round {{ r.number }}<span v-if="r.isCheck" class="soft"> check</span></b> off:
          {{ r.off.map(shortSpace).join(', ') }}
        </li>
      </ol>
      <label class="small soft"
        >Outlets to trace
        <select
          class="field"
          aria-label="add an outlet"
          @change="
            e => {
              const v = (e.target as HTMLSelectElement).value
              if (v && !chosen.includes(v)) chosen.push(v)
              ;(e.target as HTMLSelectElement).value = ''
            }
          "
        >
          <option value="">add an outlet</option>
          <option
            v-for="o in outlets.filter(x => !chosen.includes(x.id))"
            :key="o.id"
            :value="o.id"
          >
            {{ labelOf(job.site, o) }}
          </option>
        </select></label
      >
      <div v-if="chosen.length" class="scroll">
        <table>
          <thead>
            <tr>
              <th>outlet</th>
              <th v-for="r in plan.rounds" :key="r.number">{{ r.number }}</th>
              <th>on</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="id in chosen" :key="id">
              <td>{{ labelOf(job.site, job.house.subjects.get(id)!) }}</td>
              <td v-for="(r, k) in plan.rounds" :key="r.number">
                <button
                  type="button"
                  class="bit"
                  :class="seen[id]?.[k]"
                  :aria-label="`round ${r.number}: ${seen[id]?.[k] ?? 'not looked'}`"
                  @click="toggle(id, k)"
                >
                  {{ seen[id]?.[k] ?? '–' }}
                </button>
              </td>
              <td>
                <template v-if="outcome(id)?.kind === 'found'"
                  ><b>space {{ shortSpace((outcome(id) as { breaker: string }).breaker) }}</b>
                  <button
                    type="button"
                    class="touch"
                    @click="keep(id, (outcome(id) as { breaker: string }).breaker)"
                  >
                    record
                  </button></template
                >
                <template v-else-if="outcome(id)?.kind === 'ask again' && seen[id]?.every(x => x)"
                  ><span class="small why"
                    >one look was wrong: plug in a radio and switch off one after another</span
                  ><span class="row"
                    ><button
                      v-for="c in (outcome(id) as { candidates: readonly string[] }).candidates"
                      :key="c"
                      type="button"
                      class="chip mini"
                      @click="settled = { ...settled, [id]: c }"
                    >
                      {{ shortSpace(c) }}
                    </button></span
                  ></template
                >
                <span v-else-if="outcome(id)?.kind === 'one of'" class="small soft"
                  >one of
                  {{
                    (outcome(id) as { breakers: readonly string[] }).breakers
                      .map(shortSpace)
                      .join(', ')
                  }}</span
                >
                <span v-else class="small soft">–</span>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
    </template>
    <section v-if="card" class="card no-print">
      <h2 class="cardhead">
        The directory beside what was found
        <button type="button" class="plain" @click="printCard">
          <UIcon name="lucide:printer" /> Print the new card
        </button>
      </h2>
      <div class="scroll">
        <table>
          <thead>
            <tr>
              <th>space</th>
              <th>directory</th>
              <th>found</th>
              <th />
            </tr>
          </thead>
          <tbody>
            <tr v-for="e in card.entries" :key="e.breaker">
              <td>{{ e.space }}</td>
              <td>{{ e.written ?? '–' }}</td>
              <td>{{ e.found || '–' }}</td>
              <td>
                <span class="state"
                  ><SeverityMark :kind="TONE[e.state]!" :size="13" /><span class="small">{{
                    e.state
                  }}</span></span
                >
              </td>
            </tr>
          </tbody>
        </table>
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
