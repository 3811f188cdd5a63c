<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { EDITIONS, findRules, KIND_LABEL, ruleBook, type Kind, type RulePage } from '#core'

const route = useRoute()
const router = useRouter()
const job = useJobStore()
const isNarrow = useMediaQuery('(max-width: 900px)')
const book = ruleBook()
const words = ref('')
const ANY = 'any'
const kind = ref<Kind | typeof ANY>(ANY)
const edition = ref<(typeof EDITIONS)[number] | typeof ANY>(ANY)
const kinds = [
  { value: ANY, label: 'Anything' },
  ...[...new Set(book.map(p => p.kind))].map(k => ({
    value: k,
    label: sentenceCase(KIND_LABEL[k]),
  })),
]
const editions = [
  { value: ANY, label: 'Any edition' },
  ...EDITIONS.map(e => ({ value: e, label: `In the ${e} edition` })),
]
const shown = computed(() =>
  findRules(book, {
    words: words.value,
    ...(kind.value !== ANY && { kind: kind.value }),
    ...(edition.value !== ANY && { edition: edition.value }),
  }),
)
const chosen = computed<RulePage | undefined>(
  () =>
    book.find(p => p.id === String(route.query.rule ?? '')) ??
    (isNarrow.value ? undefined : shown.value[0]),
)
const pick = (id: string | undefined) => router.replace({ query: id ? { rule: id } : {} })
const here = computed(() => job.findings.filter(f => f.rule === chosen.value?.id).length)
const since = (p: RulePage) => (p.isHazard ? 'hazard' : (p.since ?? 'always'))
</script>

<template>
  <AppShell title="Rule book" :subtitle="`${shown.length} of ${book.length} rules`">
    <div class="tools">
      <UInput
        v-model="words"
        class="words"
        icon="lucide:search"
        placeholder="bathroom, 210.8, aluminum"
        aria-label="words on the page"
      />
      <USelect v-model="kind" class="pick" :items="kinds" aria-label="about a" />
      <USelect v-model="edition" class="pick" :items="editions" aria-label="edition" />
    </div>
    <div class="split">
      <nav v-if="!isNarrow || !chosen" class="list" aria-label="rules">
        <UButton
          v-for="p in shown"
          :key="p.id"
          color="neutral"
          variant="ghost"
          class="item bare"
          :aria-current="p.id === chosen?.id"
          @click="pick(p.id)"
        >
          <span
            ><b>{{ p.title }}</b
            ><span class="small soft">{{ p.thing }} · {{ p.sections[0] }}</span></span
          ><span class="small soft">{{ since(p) }}</span>
        </UButton>
        <p v-if="!shown.length" class="soft">No rule has all these words.</p>
      </nav>
      <article v-if="chosen" class="leaf" data-testid="leaf">
        <UButton
          v-if="isNarrow"
          color="neutral"
          variant="outline"
          icon="lucide:chevron-left"
          label="All rules"
          size="lg"
          @click="pick(undefined)"
        />
        <h2>{{ chosen.title }}</h2>
        <p class="soft">{{ chosen.consequence }}</p>
        <p v-if="here" class="here">
          <NuxtLink
            :to="{ path: `/jobs/${job.jobId}/findings`, query: { rule: chosen.id } }"
            class="touch"
            >Found {{ here }} {{ here === 1 ? 'time' : 'times' }} in this house</NuxtLink
          >
        </p>
        <dl>
          <dt>Judged on each</dt>
          <dd>{{ chosen.thing }}</dd>
          <dt>The fault</dt>
          <dd>{{ chosen.fault }}</dd>
          <dt>Sections</dt>
          <dd>{{ chosen.sections.join(', ') }}</dd>
          <dt>Since</dt>
          <dd>
            {{
              chosen.isHazard
                ? 'Dangerous whatever the code said'
                : (chosen.since ?? 'Before any edition in use here')
            }}
          </dd>
          <dt>Bears on old work when it is</dt>
          <dd>{{ chosen.triggers.join(', ') || 'nothing; it stands as found' }}</dd>
          <template v-if="chosen.look">
            <dt>Settled by</dt>
            <dd>{{ chosen.look }}</dd>
          </template>
        </dl>
        <h3>Traps</h3>
        <ul class="dots">
          <li v-for="t in chosen.traps" :key="t">{{ t }}</li>
        </ul>
        <h3>Remedies</h3>
        <ul class="dots">
          <li v-for="r in chosen.remedies" :key="r">{{ r }}</li>
        </ul>
        <p class="small soft">
          Sections are cited by number only. Local law and the local inspector decide.
        </p>
      </article>
    </div>
  </AppShell>
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  margin-bottom: 0.9rem;
}
.words {
  flex: 2 1 16rem;
}
.pick {
  flex: 1 1 11rem;
}
.split {
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 6fr);
  gap: 2rem;
  align-items: start;
}
.list {
  border-top: 1px solid var(--line);
}
.item {
  width: 100%;
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 1rem;
  min-height: 56px;
  padding: 0.35rem 0.6rem;
  text-align: left;
  border-bottom: 1px solid var(--line);
  border-radius: 0;
}
.item[aria-current='true'] {
  background: var(--touch-tint);
}
.item > span:first-child {
  display: grid;
}
.leaf {
  display: grid;
  gap: 0.8rem;
  position: sticky;
  top: 1rem;
  max-height: calc(100dvh - 2rem);
  overflow-y: auto;
  justify-items: start;
}
h2 {
  font-size: 1.35rem;
}
h3 {
  font-weight: 700;
}
dl {
  display: grid;
  grid-template-columns: 10rem minmax(0, 1fr);
  gap: 0.4rem 1rem;
}
dt {
  color: var(--soft);
}
.dots {
  list-style: disc;
  padding-left: 1.2rem;
  display: grid;
  gap: 0.25rem;
}
@media (max-width: 900px) {
  .split {
    grid-template-columns: minmax(0, 1fr);
  }
  .leaf {
    position: static;
    max-height: none;
  }
  dl {
    grid-template-columns: minmax(0, 1fr);
    gap: 0.1rem;
  }
  dd {
    margin-bottom: 0.5rem;
  }
}
</style>
