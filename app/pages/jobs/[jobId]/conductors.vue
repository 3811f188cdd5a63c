<script setup lang="ts">
import { cutOf, labelOf, oldWiringOf, PREMISES_ID, valueOf } from '#core'

/** Single conductors, traced one at a time: what hangs on what, and what dies where one is cut. */
const { job, problem, isLoading, load } = useOpenJob()
const wiring = computed(() => oldWiringOf(job.site))
const selected = ref<string>()
const isMarginOpen = ref(false)
const picked = computed(() => job.site.get(selected.value, 'conductor'))
const cut = computed(() => (picked.value ? cutOf(job.site, picked.value.id) : undefined))
const names = computed(
  () => new Map(job.site.all.outlet.map(o => [o.id, labelOf(job.site, o)] as const)),
)
const unproven = computed(
  () => wiring.value.conductors.filter(c => c.identity === undefined).length,
)
function pick(id: string) {
  selected.value = selected.value === id ? undefined : id
}
/** A new one, tapped from what is picked. */
function add() {
  const id = crypto.randomUUID()
  job.record([
    { act: 'add', subject: id, kind: 'conductor', parent: PREMISES_ID },
    ...(picked.value
      ? [
          {
            act: 'note' as const,
            subject: id,
            field: 'from',
            value: picked.value.id,
            grade: 'seen' as const,
          },
        ]
      : []),
  ])
  selected.value = id
  isMarginOpen.value = true
}
</script>

<template>
  <AppShell
    v-model:margin="isMarginOpen"
    title="Single conductors"
    :subtitle="valueOf(job.site.premises, 'name')"
    :margin-note="picked ? 'what is recorded of it' : 'press a conductor'"
  >
    <PageState :is-loading="isLoading" :problem="problem" @again="load">
      <nav class="views" aria-label="order of the outlets">
        <UButton color="neutral" variant="ghost" class="tab bare" :to="`/jobs/${job.jobId}/outlets`"
          >by room</UButton
        >
        <UButton
          color="neutral"
          variant="ghost"
          class="tab bare"
          :to="`/jobs/${job.jobId}/outlets?view=circuits`"
          >by circuit</UButton
        >
        <UButton color="neutral" variant="ghost" class="tab bare" aria-current="true"
          >single conductors</UButton
        >
      </nav>
      <div class="page">
        <p v-if="wiring.conductors.length === 0" class="soft">
          Knob-and-tube and other old wiring runs every conductor by itself. Follow one from its
          terminal, joint by joint; each gets its own line here. What it is, only a meter says.
        </p>
        <template v-else>
          <p class="soft">
            {{ wiring.conductors.length }} followed, <b>{{ unproven }}</b> of them not proved by a
            meter. Press one to see what dies if it is cut there.
          </p>
          <OldWiringMap
            :wiring="wiring"
            :names="names"
            :selected="selected"
            :cut="cut"
            @pick="pick"
          />
          <p v-if="wiring.rings.length" role="alert" class="fails">
            {{ wiring.rings.length }} are tapped from each other in a ring: one of them comes from
            somewhere else.
          </p>
        </template>
        <div class="row">
          <UButton
            color="primary"
            icon="lucide:plus"
            :label="picked ? 'Add what is tapped from it' : 'Add a conductor'"
            @click="add"
          />
        </div>
        <section v-if="cut && picked" class="cut" data-testid="cut" aria-live="polite">
          <h2><UIcon name="lucide:scissors" /> If {{ labelOf(job.site, picked) }} is cut</h2>
          <p v-if="cut.outlets.length === 0" class="soft">No outlet is recorded behind it.</p>
          <ul>
            <li v-for="o in cut.outlets" :key="o.id">
              <b>{{ o.label }}</b>: {{ o.fate }}
            </li>
          </ul>
          <p v-for="c in cut.cautions" :key="c" class="caution">
            <UIcon name="lucide:triangle-alert" /> {{ c }}
          </p>
        </section>
      </div>
    </PageState>
    <template #margin>
      <FactSheet v-if="picked" :subject="picked" :title="labelOf(job.site, picked)" />
      <p v-else class="soft">Press a conductor: what is recorded of it stands here.</p>
    </template>
  </AppShell>
</template>

<style scoped>
.page {
  display: grid;
  gap: 1rem;
}
.views {
  display: flex;
  gap: 1.2rem;
  margin-bottom: 0.6rem;
}
.views .tab {
  min-height: 40px;
}
.cut {
  display: grid;
  gap: 0.5rem;
}
.caution {
  color: var(--repair);
  font-weight: 600;
}
</style>
