<script lang="ts">
import type { InstrumentTarget } from '#shared/instruments'

export interface LiveReadingProps {
  at: InstrumentTarget
}
export interface LiveReadingEmits {
  taken: []
}
</script>

<script setup lang="ts">
import { fieldOf, valueText, type Kind } from '#core'

const { at } = defineProps<LiveReadingProps>()
const emit = defineEmits<LiveReadingEmits>()
const job = useJobStore()
const instruments = useInstrumentStore()
onMounted(() => (instruments.focus = at))
onUnmounted(() => {
  if (instruments.focus?.subject === at.subject && instruments.focus.field === at.field)
    instruments.focus = undefined
})
const reads = computed(() => {
  const { reading } = instruments
  const field = fieldOf(at.kind as Kind, at.field)
  return reading && field ? valueText(field, reading.value, job.site.units) : ''
})
function take() {
  instruments.take()
  emit('taken')
}
</script>

<template>
  <div v-if="instruments.fitting.length" class="live" data-testid="live-reading">
    <template v-if="instruments.reader">
      <UIcon name="lucide:radio" />
      <span aria-live="off"
        >{{ instruments.reader.name }}
        <span class="small soft">{{ instruments.reader.serial }}</span><template
          v-if="instruments.reader.isSimulated"
          ><span class="small soft"> simulated</span></template
        >: <b>{{ reads || 'nothing to read here' }}</b></span
      >
      <UButton
        v-if="reads"
        color="primary"
        icon="lucide:check"
        label="Take this reading"
        @click="take"
      />
    </template>
    <UButton
      v-else
      color="neutral"
      variant="link"
      icon="lucide:gauge"
      label="Read it with an instrument"
      @click="instruments.isTrayOpen = true"
    />
  </div>
</template>

<style scoped>
.live {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 0.8rem;
  align-items: center;
  padding: 0.4rem 0;
}
</style>
