<script lang="ts">
import type { Access, Instrument, Purpose, Sample, Scope, VisitCounts } from '#core'

export interface ScopeBarProps {
  scope: Scope
  counts: VisitCounts
}
export interface ScopeBarEmits {
  purpose: [purpose: Purpose]
  access: [access: Access, is: boolean]
  instrument: [instrument: Instrument, is: boolean]
  sample: [sample: Sample]
}
</script>

<script setup lang="ts">
import { ACCESS_FACTS, INSTRUMENT_FACTS, PRESETS, PURPOSES, SAMPLES } from '#core'

const { scope, counts } = defineProps<ScopeBarProps>()
const emit = defineEmits<ScopeBarEmits>()
const isOpen = ref(false)
const ACCESS_WORDS: Partial<Record<Access, string>> = {
  'cover off': 'Covers of panels come off',
  'device pulled': 'Devices are pulled out, power off',
  'box opened': 'Boxes are opened, power off',
  'attic or crawl space': 'Attic and crawl space are entered',
  record: 'Permits and invoices are asked for',
  'loaded test': 'Circuits are loaded to measure',
}
const purposes = PURPOSES.map(p => ({
  value: p,
  label: PURPOSE_NAMES[p],
  description: PRESETS[p].title,
}))
const samples = SAMPLES.map(s => ({ value: s, label: s.charAt(0).toUpperCase() + s.slice(1) }))
</script>

<template>
  <section class="scope" data-testid="scope">
    <div class="words">
      <p>
        <b>{{ PURPOSE_NAMES[scope.purpose] }}</b><span class="soft">
          · {{ PRESETS[scope.purpose].title }}</span
        >
      </p>
      <UButton
        size="lg"
        variant="outline"
        icon="i-lucide-sliders-horizontal"
        label="Scope of the visit"
        @click="isOpen = true"
      />
    </div>
    <dl class="figures">
      <div>
        <dd>{{ counts.inScope }}</dd>
        <dt>checks open here</dt>
      </div>
      <div>
        <dd>{{ counts.settled }}</dd>
        <dt>settled</dt>
      </div>
      <div>
        <dd>{{ counts.outside }}</dd>
        <dt>outside this visit</dt>
      </div>
    </dl>
    <UModal
      v-model:open="isOpen"
      title="Scope of the visit"
      description="What lies outside is said in the limitations, and is never taken as fine."
    >
      <template #body>
        <div class="sheet">
          <URadioGroup
            :model-value="scope.purpose"
            :items="purposes"
            legend="Purpose"
            variant="table"
            @update:model-value="p => emit('purpose', p as Purpose)"
          />
          <fieldset>
            <legend>How far looks go</legend>
            <USwitch
              v-for="[field, access] in ACCESS_FACTS"
              :key="field"
              :model-value="scope.access.has(access)"
              :label="ACCESS_WORDS[access]"
              @update:model-value="is => emit('access', access, is)"
            />
          </fieldset>
          <URadioGroup
            :model-value="scope.sample"
            :items="samples"
            legend="Outlets looked at"
            description="Ground-fault places always; in houses of two-wire years every three-slot receptacle"
            @update:model-value="s => emit('sample', s as Sample)"
          />
          <fieldset>
            <legend>In the bag</legend>
            <USwitch
              v-for="[field, instrument] in INSTRUMENT_FACTS"
              :key="field"
              :model-value="scope.instruments.has(instrument)"
              :label="instrument.charAt(0).toUpperCase() + instrument.slice(1)"
              @update:model-value="is => emit('instrument', instrument, is)"
            />
          </fieldset>
        </div>
      </template>
    </UModal>
  </section>
</template>

<style scoped>
.scope {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem 2rem;
  align-items: center;
  justify-content: space-between;
  border-bottom: 1px solid var(--line);
  padding-bottom: 0.8rem;
  margin-bottom: 0.9rem;
}
.words {
  display: grid;
  gap: 0.35rem;
  justify-items: start;
  flex: 1 1 18rem;
}
.figures {
  display: flex;
  gap: 1.6rem;
}
.figures dd {
  font-size: 1.45rem;
  font-weight: 600;
  font-variant-numeric: tabular-nums;
  line-height: 1.1;
}
.figures dt {
  color: var(--soft);
  font-size: 0.85rem;
}
.figures div {
  display: flex;
  flex-direction: column;
}
.sheet {
  display: grid;
  gap: 1.3rem;
}
fieldset {
  display: grid;
  gap: 0.7rem;
}
legend {
  font-weight: 600;
  margin-bottom: 0.5rem;
}
</style>
