<script setup lang="ts">
const {
  id,
  order,
  choose,
  values,
  from,
  isAsked,
  out,
  refused,
  refusal,
  sources,
  take,
  putBack,
  isKept,
  tryExample,
  nextKey,
} = useBench()
/** What is put in by touching the drawing stands folded as a form under it. */
const DRAWN: Readonly<Record<string, readonly string[]>> = {
  diagnose: ['lamps', 'hotNeutral', 'hotGround', 'neutralGround'],
  boxfill: ['box', 'yokes', 'supportFittings', 'hasInternalClamps'],
  identify: ['surface', 'core'],
}
const fields = computed(() =>
  (BENCH[id.value] ?? []).filter(f => !(DRAWN[id.value] ?? []).includes(f.key)),
)
</script>

<template>
  <div>
    <nav class="tabs no-print" aria-label="calculators">
      <UButton
        v-for="s in order"
        :key="s"
        color="neutral"
        variant="ghost"
        class="tab bare"
        :aria-current="s === id"
        @click="choose(s)"
      >
        {{ BENCH_NAMES[s] }}
      </UButton>
    </nav>
    <TraceBoard v-if="id === 'trace'" />
    <HeatStrip v-else-if="id === 'heat'" />
    <div v-else class="two">
      <section>
        <div v-if="sources.length" class="small soft from">
          Take from the house
          <USelectMenu
            class="field"
            value-key="id"
            clear
            placeholder="nothing: put it in below"
            aria-label="take from the house"
            :items="[...sources]"
            :model-value="from || undefined"
            @update:model-value="v => take(v ?? '')"
          />
        </div>
        <LeadsDraw v-if="id === 'diagnose'" v-model="values" />
        <BoxDraw v-else-if="id === 'boxfill'" v-model="values" />
        <WireDraw v-else-if="id === 'identify'" v-model="values" />
        <BenchForm v-model="values" :fields="fields" :next="nextKey" />
        <div class="row">
          <UButton
            v-if="from && isAsked"
            color="neutral"
            variant="outline"
            class="plain"
            :disabled="isKept"
            @click="putBack"
            >{{ isKept ? 'recorded' : 'Record in the house' }}</UButton><UButton
            v-if="isAsked"
            color="primary"
            variant="link"
            class="touch"
            @click="values = {}"
            >clear</UButton
          ><UButton v-else color="primary" variant="link" class="touch" @click="tryExample"
            >try an example</UButton
          >
        </div>
      </section>
      <BenchAnswer :id="id" :out="out" :is-refused="refused !== undefined" :refusal="refusal" />
    </div>
  </div>
</template>

<style scoped>
.tabs {
  display: flex;
  gap: 0 1.2rem;
  border-bottom: 1px solid var(--line);
  margin-bottom: 1rem;
  overflow-x: auto;
  scrollbar-width: none;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1.25fr) minmax(0, 1fr);
  gap: 2rem;
  align-items: start;
}
.from {
  display: flex;
  gap: 0.6rem;
  align-items: center;
  margin-bottom: 0.9rem;
}
.from .field {
  width: auto;
  min-width: 14rem;
  max-width: 22rem;
}
.row {
  display: flex;
  gap: 1rem;
  align-items: center;
  margin-top: 1.1rem;
}
.row .touch {
  min-height: 44px;
}
@media (max-width: 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
    gap: 1.2rem;
  }
  .from {
    flex-wrap: wrap;
  }
  .from .field {
    max-width: 100%;
  }
}
</style>
