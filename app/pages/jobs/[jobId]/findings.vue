<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import {
  groupAlike,
  isKind,
  SEVERITIES,
  STAGES,
  valueOf,
  type FindingGroup,
  type Severity,
} from '#core'

const { job, problem, isLoading, load } = useOpenJob()
const isNarrow = useMediaQuery('(max-width: 900px)')
const router = useRouter()
const tab = ref<'found' | 'open' | 'stays'>('found')
const only = ref<Severity>()
const query = ref('')
const shown = computed(() =>
  job.findings.filter(
    f =>
      (!only.value || f.severity === only.value) &&
      (query.value.trim() === '' ||
        `${f.title} ${f.subject.label} ${f.why}`
          .toLowerCase()
          .includes(query.value.trim().toLowerCase())),
  ),
)
const groups = computed(() =>
  SEVERITIES.map(severity => ({
    severity,
    found: groupAlike(shown.value.filter(f => f.severity === severity)),
  })).filter(g => g.found.length > 0),
)
/** What is proven, as the jobs and the report count it, and what one look settles beside it. */
function countOf(list: readonly { readonly outcome: string }[]): string {
  const proven = list.filter(f => f.outcome === 'fault').length
  const leaning = list.length - proven
  return leaning > 0 ? `${proven} + ${leaning} leaning` : String(proven)
}
const keyOf = (g: FindingGroup) => `${g.first.rule} ${g.first.subject.id}`
const openKey = ref('')
const route = useRoute()
/** The finding shown beside the list: the one touched, else the first. */
const opened = computed(() => {
  const all = groups.value.flatMap(g => g.found)
  const asked = String(route.query.rule ?? '')
  return (
    all.find(f => keyOf(f) === openKey.value) ?? all.find(f => f.first.rule === asked) ?? all[0]
  )
})
const placeWords = ({ first, all }: FindingGroup) => {
  const lean = first.leans ? ' · a fault unless …' : ''
  return (all.length === 1 ? first.subject.label : `${all.length} places`) + lean
}
/** Lawful when installed: not a fault, not clear, and on record with what it means. */
const stays = computed(() => groupAlike(job.allowed))
const stages = computed(() =>
  STAGES.map(stage => ({ stage, looks: job.openLooks.filter(l => l.stage === stage) })).filter(
    s => s.looks.length > 0,
  ),
)
const STAGE_WORDS = {
  before: 'Before the visit',
  outside: 'Outside',
  'cover on': 'Panel, cover on',
  'cover off': 'Panel, cover off',
  'sub-panel': 'Sub-panels',
  trace: 'Tracing',
  rooms: 'Rooms',
  'open box': 'Opened boxes',
} as const
const CAUTION: Partial<Record<keyof typeof STAGE_WORDS, string>> = {
  'cover on': 'Test the cover for voltage before touching it; stand to the side',
  'cover off': 'The line side of a main stays live with the main off; qualified people only',
  'open box':
    'Power off, locked, and absence of voltage proved with a tester proved before and after',
}
/** Opens the place where the thing is drawn. */
function go(id: string) {
  const { site } = job
  let at = job.house.subjects.get(id)
  if (isKind(at, 'outlet'))
    return router.push({
      path: `/jobs/${job.jobId}/outlets`,
      query: { circuit: valueOf(at, 'circuit') },
    })
  if (at?.kind === 'segment') at = job.house.subjects.get(at.parent ?? '')
  if (isKind(at, 'circuit')) at = site.get(valueOf(at, 'fedBy'), 'breaker')
  while (at && at.kind !== 'enclosure') at = job.house.subjects.get(at.parent ?? '')
  return router.push({ path: `/jobs/${job.jobId}/panel`, query: at ? { at: at.id } : {} })
}
</script>

<template>
  <AppShell title="Findings" :subtitle="valueOf(job.site.premises, 'name')">
    <template #tools>
      <a class="tool-link touch" :href="`/api/jobs/${job.jobId}/findings.csv`">CSV</a>
    </template>
    <PageState :is-loading="isLoading" :problem="problem" @again="load">
      <div class="bar">
        <UButton
          color="neutral"
          variant="ghost"
          class="tab bare"
          :aria-current="tab === 'found'"
          @click="tab = 'found'"
        >
          Found <b>{{ job.findings.length }}</b>
        </UButton>
        <UButton
          color="neutral"
          variant="ghost"
          class="tab bare"
          :aria-current="tab === 'open'"
          @click="tab = 'open'"
        >
          <SeverityMark kind="undecided" /> To look at <b>{{ job.openLooks.length }}</b>
        </UButton>
        <UButton
          v-if="stays.length"
          color="neutral"
          variant="ghost"
          class="tab bare"
          :aria-current="tab === 'stays'"
          @click="tab = 'stays'"
        >
          Allowed to remain <b>{{ stays.reduce((n, g) => n + g.all.length, 0) }}</b>
        </UButton>
        <div v-if="tab === 'found'" class="find">
          <UInput
            v-model="query"
            class="field"
            icon="lucide:search"
            placeholder="place or fault"
            aria-label="search findings"
          />
        </div>
      </div>

      <template v-if="tab === 'found'">
        <div class="filters">
          <UButton
            v-for="s in SEVERITIES"
            :key="s"
            color="neutral"
            variant="outline"
            class="chip"
            :aria-pressed="only === s"
            @click="only = only === s ? undefined : s"
          >
            <SeverityMark :kind="s" /> {{ s }}
            <b>{{ countOf(job.findings.filter(f => f.severity === s)) }}</b>
          </UButton>
        </div>
        <p v-if="!job.isReady" class="soft none" role="status">Judging</p>
        <p v-else-if="!job.findings.length" class="soft none">
          No fault found so far. What has not been seen yet stands under <i>To look at</i>.
        </p>
        <p v-else-if="!groups.length" class="soft none">No finding matches.</p>
        <div v-else class="split">
          <div class="rows" data-testid="rows">
            <section v-for="g in groups" :key="g.severity">
              <h2 class="weight">
                <SeverityMark :kind="g.severity" /> {{ g.severity }}
                <span class="soft">{{ countOf(g.found.flatMap(f => f.all)) }}</span>
              </h2>
              <template v-for="f in g.found" :key="keyOf(f)">
                <UButton
                  class="row"
                  variant="ghost"
                  color="neutral"
                  block
                  :data-rule="f.first.rule"
                  :aria-pressed="keyOf(f) === openKey"
                  @click="openKey = keyOf(f) === openKey && isNarrow ? '' : keyOf(f)"
                >
                  <SeverityMark
                    :kind="f.first.outcome === 'fault' ? g.severity : 'undecided'"
                    :size="18"
                  />
                  <span class="what"
                    ><b>{{ f.first.title }}</b
                    ><span class="small soft">{{ placeWords(f) }}</span></span
                  >
                  <span v-if="f.first.compare" class="num"
                    >{{ f.first.compare.left }} {{ f.first.compare.sign }}
                    {{ f.first.compare.right }}
                    <span class="small soft">{{ f.first.compare.unit }}</span></span
                  >
                </UButton>
                <FindingCard
                  v-if="isNarrow && keyOf(f) === openKey"
                  :finding="f.first"
                  :alike="f.all"
                  fixes
                  @place="go"
                />
              </template>
            </section>
          </div>
          <div v-if="!isNarrow && opened" class="detail">
            <FindingCard
              :key="keyOf(opened)"
              :finding="opened.first"
              :alike="opened.all"
              fixes
              @place="go"
            />
          </div>
        </div>
      </template>

      <template v-else-if="tab === 'stays'">
        <p class="soft intro">
          Below today’s rule, lawful when it was installed, and allowed to remain. Each says since
          when the rule exists and what work ends it.
        </p>
        <article v-for="g in stays" :key="g.first.rule + g.first.subject.id" class="stays">
          <h2>{{ g.first.title }}</h2>
          <p>{{ g.first.why }}</p>
          <p class="soft">{{ g.first.standingWhy }}</p>
          <p class="places">
            <UButton
              v-for="r in g.all"
              :key="r.subject.id"
              color="neutral"
              variant="outline"
              class="plain"
              @click="go(r.subject.id)"
            >
              {{ r.subject.label }}
            </UButton>
          </p>
        </article>
      </template>

      <template v-else>
        <p class="soft intro">
          Within the scope of this visit. Not seen is never fine: what lies outside is listed on the
          walk, and in the report.
        </p>
        <section v-for="s in stages" :key="s.stage" class="stage">
          <h2>
            {{ STAGE_WORDS[s.stage] }} <span class="small soft">{{ s.looks.length }}</span>
          </h2>
          <p v-if="CAUTION[s.stage]" class="small caution">
            <UIcon name="lucide:triangle-alert" /> {{ CAUTION[s.stage] }}
          </p>
          <LookRow v-for="l in s.looks" :key="`${l.subject}${l.field}`" :look="l" @pick="go" />
        </section>
        <p v-if="job.isReady && !stages.length" class="soft none">
          Everything recorded is decided.
        </p>
      </template>
    </PageState>
  </AppShell>
</template>

<style scoped>
.bar {
  display: flex;
  gap: 0.3rem 1.4rem;
  align-items: center;
  flex-wrap: wrap;
  border-bottom: 1px solid var(--line);
}
.find {
  margin-left: auto;
  display: flex;
  align-items: center;
  gap: 0.5rem;
  color: var(--soft);
}
.find .field {
  width: 14rem;
  min-height: 40px;
}
.filters {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  margin: 0.8rem 0;
}
.split {
  display: grid;
  grid-template-columns: minmax(20rem, 5fr) minmax(22rem, 6fr);
  gap: 1.6rem;
  align-items: start;
}
.rows {
  display: grid;
  gap: 1rem;
}
.weight {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  font-size: 1rem;
  border-bottom: 1px solid var(--line);
  padding-bottom: 0.3rem;
}
.row {
  display: grid;
  grid-template-columns: 18px 1fr auto;
  gap: 0.7rem;
  align-items: center;
  text-align: left;
  min-height: 46px;
  padding: 0.3rem 0.4rem;
  border-radius: 0;
  border-bottom: 1px solid var(--line);
  font-weight: 400;
}
.row[aria-pressed='true'] {
  background: var(--touch-tint);
}
.what {
  display: grid;
  min-width: 0;
}
.what .small {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.num {
  font-variant-numeric: tabular-nums;
  white-space: nowrap;
}
.detail {
  position: sticky;
  top: 0.8rem;
}
@media (max-width: 900px) {
  .split {
    grid-template-columns: 1fr;
  }
}
.none {
  padding: 2rem 0;
}
.intro {
  margin: 0.9rem 0;
  max-width: 44rem;
}
.stays {
  max-width: 52rem;
  padding: 0.9rem 0;
  border-bottom: 1px solid var(--line);
  display: grid;
  gap: 0.4rem;
}
.stays h2 {
  font-weight: 600;
}
.places {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
.stage {
  max-width: 52rem;
  margin-bottom: 1.4rem;
}
.caution {
  color: var(--repair);
  display: flex;
  gap: 0.4rem;
  align-items: center;
}
.tool-link {
  min-height: 44px;
  display: inline-flex;
  align-items: center;
  padding: 0 0.6rem;
}
@media (max-width: 900px) {
  .filters {
    flex-wrap: nowrap;
    overflow-x: auto;
    scrollbar-width: none;
  }
  .filters .chip {
    white-space: nowrap;
    flex: none;
  }
  .find {
    margin-left: 0;
    width: 100%;
    padding-bottom: 0.5rem;
  }
  .find .field {
    width: 100%;
  }
}
</style>
