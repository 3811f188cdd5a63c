<script lang="ts">
import type { BenchField } from '~/utils/bench'

export interface BenchFormProps {
  fields: readonly BenchField[]
  /** The reading that would settle most. */ next?: string
}
</script>

<script setup lang="ts">
import { typedIn } from '#core'

const { fields, next = '' } = defineProps<BenchFormProps>()
const values = defineModel<Record<string, unknown>>({ required: true })
const set = (key: string, value: unknown) => {
  values.value = { ...values.value, [key]: values.value[key] === value ? undefined : value }
}
function typed(key: string, text: string) {
  const trimmed = text.trim().replace(',', '.')
  values.value = { ...values.value, [key]: trimmed === '' ? undefined : Number(trimmed) }
}
const job = useJobStore()
</script>

<template>
  <div class="form">
    <div
      v-for="f in fields"
      :key="f.key"
      class="row"
      :class="{ next: f.key === next, wide: (f.options?.length ?? 0) > 3 }"
      :data-key="f.key"
    >
      <p class="label">
        {{ f.label }}<span v-if="f.unit && f.options" class="small soft unit">{{ f.unit }}</span
        ><span v-if="f.key === next" class="small go-next">next</span>
      </p>
      <USelectMenu
        v-if="(f.options?.length ?? 0) > 9"
        class="field"
        placeholder="not known"
        clear
        :aria-label="f.label"
        :items="[...(f.options ?? [])]"
        :model-value="values[f.key] === undefined ? undefined : String(values[f.key])"
        @update:model-value="v => set(f.key, v || undefined)"
      />
      <div v-else-if="f.options" class="chips">
        <UButton
          v-for="o in f.options"
          :key="o"
          color="neutral"
          variant="outline"
          class="chip"
          :aria-pressed="values[f.key] === o"
          @click="set(f.key, o)"
        >
          {{ o }}
        </UButton>
      </div>
      <div v-else-if="f.yesNo" class="chips">
        <UButton
          color="neutral"
          variant="outline"
          class="chip"
          :aria-pressed="values[f.key] === true"
          @click="set(f.key, true)"
        >
          yes</UButton
        ><UButton
          color="neutral"
          variant="outline"
          class="chip"
          :aria-pressed="values[f.key] === false"
          @click="set(f.key, false)"
        >
          no
        </UButton>
      </div>
      <div v-else class="num">
        <UInput
          class="field"
          inputmode="decimal"
          :aria-label="f.label"
          :model-value="String(values[f.key] ?? '')"
          :placeholder="f.hint ?? ''"
          @update:model-value="v => typed(f.key, String(v))"
        /><span v-if="f.unit" class="soft">{{ typedIn(f.unit, job.site.units).unit }}</span>
      </div>
    </div>
  </div>
</template>

<style scoped>
.form {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(12.5rem, 1fr));
  gap: 0.8rem 1.2rem;
}
.row.wide {
  grid-column: 1 / -1;
}
.label {
  font-weight: 600;
  margin-bottom: 0.2rem;
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 0.35rem;
}
.num {
  display: flex;
  align-items: center;
  gap: 0.5rem;
}
.num .field {
  flex: 1;
  min-width: 0;
  font-size: 1.05rem;
}
.next {
  outline: 2px dashed var(--cool);
  outline-offset: 5px;
  border-radius: 3px;
}
.unit {
  margin-left: 0.4rem;
}
.field {
  max-width: 100%;
}
@media (max-width: 900px) {
  .form {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }
}
.go-next {
  color: var(--cool);
  margin-left: 0.5rem;
}
</style>
