<script lang="ts">
import type { Report } from '#core'

export interface ReportPaperProps {
  report: Report
}
</script>

<script setup lang="ts">
import { FIELDS } from '#core'

const { report } = defineProps<ReportPaperProps>()
const assessor = computed(
  () => report.facts.find(f => f.label === FIELDS.premises.assessor.label)?.value ?? '',
)
const STAGE_WORDS: Record<string, string> = {
  before: 'Before the visit',
  outside: 'Outside',
  'cover on': 'Panel, cover on',
  'cover off': 'Panel, cover off',
  'sub-panel': 'Sub-panels',
  trace: 'Tracing',
  rooms: 'Rooms',
  'open box': 'Opened boxes',
}
const tone = (severity: string) =>
  ({
    'make safe now': 'now',
    repair: 'repair',
    upgrade: 'upgrade',
    note: 'record',
  })[severity]
</script>

<template>
  <article class="paper" data-testid="report">
    <header>
      <p class="small soft">
        {{
          report.voice === 'inspector'
            ? 'Observations of the electrical installation'
            : 'Electrical findings and scope'
        }}
      </p>
      <h1>{{ report.name }}</h1>
      <dl class="facts">
        <div v-for="f in report.facts.slice(1)" :key="f.label">
          <dt>{{ f.label }}</dt>
          <dd>{{ f.value }}</dd>
        </div>
      </dl>
    </header>
    <ul class="counts">
      <li v-for="c in report.counts" :key="c.severity">
        <SeverityMark :kind="c.severity" :size="18" /><b>{{ c.count }}</b> {{ c.severity }}
      </li>
      <li v-if="report.allowed.length">
        <b>{{ report.allowed.reduce((n, a) => n + a.where.length, 0) }}</b> allowed to remain
      </li>
      <li>
        <SeverityMark kind="undecided" :size="18" /><b>{{ report.scope.inScope }}</b> open on this
        visit
      </li>
      <li>
        <b>{{ report.scope.outside }}</b> outside it
      </li>
    </ul>
    <p class="soft small">
      {{ report.judged }} checks made, {{ report.clear }} clear{{
        report.leaning ? `; ${report.leaning} lean to a fault and are not proven` : ''
      }}.
    </p>

    <section v-for="g in report.groups" :key="g.severity">
      <h2 :class="`sev-${tone(g.severity)}`" class="sevhead">
        <SeverityMark :kind="g.severity" :size="18" /> {{ g.severity }}
      </h2>
      <div v-for="(i, n) in g.items" :key="n" class="item">
        <h3>
          <SeverityMark v-if="i.leans" :kind="i.severity" open :size="16" /> {{ i.title }}
          <span class="soft"
            >· {{ i.where.length === 1 ? i.where[0] : `${i.where.length} places` }}</span
          >
        </h3>
        <p v-if="i.where.length > 1" class="small soft">{{ i.where.join('; ') }}</p>
        <CompareRow v-if="i.compare" :compare="i.compare" />
        <p>
          <b>Seen</b> {{ i.seen }} <span class="soft">({{ i.grade }})</span>
        </p>
        <template v-if="report.voice === 'inspector'">
          <p><b>Can lead to</b> {{ i.leadsTo }}</p>
          <p><b>To be evaluated by</b> {{ i.who }}</p>
        </template>
        <p v-for="a in i.also" :key="a">{{ a }}</p>
        <p v-if="i.leans?.unless.length">
          <b>{{ i.leans.to === 'fault' ? 'A fault unless' : 'Allowed to remain if' }}</b>
          {{ i.leans.unless.join(', or ') }}
        </p>
        <p v-if="i.leans" class="small"><b>To be settled by</b> {{ i.leans.ask }}</p>
        <p v-if="i.working.length" class="small"><b>Math</b> {{ i.working.join('; ') }}</p>
        <p v-if="i.byHand" class="small">{{ i.byHand }}</p>
        <p class="small">
          <b>Standing</b> {{ i.standing }}: {{ i.standingWhy
          }}<template v-if="i.sections.length"> · {{ i.sections.join(', ') }}</template>
        </p>
        <ul v-if="i.remedies.length" class="rem small">
          <li v-for="r in i.remedies" :key="r.title" :class="r.verdict">
            <b>{{ r.title }}</b>, {{ r.verdict }}: {{ r.why
            }}<template v-if="r.verdict !== 'refused'"
              ><template v-if="r.duties.length">. Duties: {{ r.duties.join('; ') }}</template
              ><template v-if="r.markings.length">. Mark: {{ r.markings.join('; ') }}</template
              ><template v-if="r.needsPermit">. Permit</template></template
            >
          </li>
        </ul>
      </div>
    </section>

    <section v-if="report.allowed.length" data-testid="report-allowed">
      <h2>Allowed to remain</h2>
      <p class="soft small">
        Below today’s rule, lawful when it was installed. Not a fault; each line says what ends it.
      </p>
      <div v-for="(m, i) in report.allowed" :key="i" class="item">
        <h3>
          {{ m.title }}
          <span class="soft"
            >· {{ m.where.length === 1 ? m.where[0] : `${m.where.length} places` }}</span
          >
        </h3>
        <p v-if="m.where.length > 1" class="small soft">{{ m.where.join('; ') }}</p>
        <p>{{ m.seen }}</p>
        <p class="small soft">{{ m.means }}</p>
      </div>
    </section>
    <section v-if="report.limitations.length">
      <h2>Could not be seen</h2>
      <!-- A table of the printed document. -->
      <table>
        <tbody>
          <tr v-for="(l, i) in report.limitations" :key="i">
            <td>{{ l.where }}</td>
            <td>{{ l.fact }}</td>
            <td class="soft">{{ l.reason }}</td>
          </tr>
        </tbody>
      </table>
    </section>
    <section v-if="report.outside.length">
      <h2>Outside this visit</h2>
      <p class="soft small">
        Not looked at as agreed, and not said to be in order. {{ report.scope.settled }} checks were
        settled, {{ report.scope.outside }} lay outside.
      </p>
      <ul class="dash small">
        <li v-for="o in report.outside" :key="o.text">{{ o.text }}</li>
      </ul>
    </section>
    <section v-if="report.notYetSeen.length">
      <h2>Still to be looked at on this visit</h2>
      <p class="soft small">
        {{ report.scope.inScope }} checks are open. What was not seen is not said to be in order.
      </p>
      <template v-for="s in report.notYetSeen" :key="s.stage">
        <h3 class="small soft">{{ STAGE_WORDS[s.stage] }}</h3>
        <ul class="dash small">
          <li v-for="(l, i) in s.items" :key="i">{{ l.where }}: {{ l.look }}</li>
        </ul>
      </template>
    </section>
    <section>
      <h2>Cautions and limits</h2>
      <ul class="dash small">
        <li v-for="c in report.cautions" :key="c">{{ c }}</li>
      </ul>
    </section>
    <p class="sign">
      Assessed by <span>{{ assessor }}</span> signed <span />
    </p>
  </article>
</template>

<style scoped>
.paper {
  background: var(--sheet);
  border: 1px solid var(--line);
  padding: 2rem 2.4rem;
  max-width: 56rem;
  display: grid;
  gap: 1.1rem;
}
.facts {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(11rem, 1fr));
  gap: 0.4rem 1.2rem;
  margin-top: 0.7rem;
}
dt {
  color: var(--soft);
  font-size: 0.85rem;
}
dd {
  font-weight: 600;
}
.counts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1.6rem;
  border-block: 1px solid var(--line);
  padding: 0.7rem 0;
}
.counts li {
  display: flex;
  align-items: center;
  gap: 0.45rem;
}
.counts b {
  font-size: 1.25rem;
}
.sevhead {
  display: flex;
  align-items: center;
  gap: 0.5rem;
  border-bottom: 2px solid currentColor;
  padding-bottom: 0.2rem;
}
.sevhead::first-letter {
  text-transform: uppercase;
}
.item {
  padding: 0.7rem 0;
  border-bottom: 1px solid var(--line);
  display: grid;
  gap: 0.15rem;
  break-inside: avoid;
}
.item h3 {
  font-weight: 700;
}
.item h3 .soft {
  font-weight: 400;
}
.item :deep(.num) {
  font-size: 1.35rem;
}
.rem {
  padding-left: 0.2rem;
  display: grid;
  gap: 0.2rem;
  margin-top: 0.3rem;
}
.rem li {
  border-left: 3px solid var(--cool);
  padding-left: 0.6rem;
}
.rem .conditional {
  border-left-style: dashed;
}
.rem .refused {
  border-left-color: var(--line);
  color: var(--soft);
}
.rem .refused b {
  text-decoration: line-through;
}
table {
  width: 100%;
}
td {
  padding: 0.25rem 0.8rem 0.25rem 0;
  vertical-align: top;
  border-bottom: 1px solid var(--line);
}
.dash {
  list-style: none;
}
.dash li::before {
  content: '– ';
}
.sign {
  margin-top: 1.4rem;
}
.sign span {
  display: inline-block;
  min-width: 13rem;
  border-bottom: 1px solid var(--ink);
  margin-right: 1.5rem;
  padding-left: 0.4rem;
}
@media (max-width: 900px) {
  .paper {
    padding: 1.1rem 1rem;
  }
}
@media print {
  .paper {
    border: 0;
    padding: 0;
    max-width: none;
  }
}
</style>
