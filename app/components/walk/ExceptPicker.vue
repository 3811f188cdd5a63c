<script lang="ts">
export interface ExceptPickerProps {
  /** Ids of the things one question is asked of. */
  things: readonly string[]
}
</script>

<script setup lang="ts">
import { isKind, labelOf, valueOf, type Subject } from '#core'

const { things } = defineProps<ExceptPickerProps>()
/** Those that differ: the answer is not for them. */
const except = defineModel<ReadonlySet<string>>({ required: true })
const job = useJobStore()
/** The breaker a thing hangs on, where that places it on the panel. */
function breakerOf(thing: Subject | undefined): Subject<'breaker'> | undefined {
  if (isKind(thing, 'breaker')) return thing
  if (isKind(thing, 'circuit')) return job.site.get(valueOf(thing, 'fedBy'), 'breaker')
  if (isKind(thing, 'segment')) return breakerOf(job.house.subjects.get(thing.parent ?? ''))
  return undefined
}
const drawn = computed(() =>
  things.map(id => {
    const thing = job.house.subjects.get(id)
    const breaker = breakerOf(thing)
    return {
      id,
      label: thing ? labelOf(job.site, thing).replace(/^.*?, (?=space )/, '') : id,
      outlet: isKind(thing, 'outlet') ? thing : undefined,
      space: breaker && valueOf(breaker, 'space'),
      amps: breaker && valueOf(breaker, 'ratingAmps'),
    }
  }),
)
/** Odd spaces hang left and even ones right, as on the panel. */
const isPanel = computed(() => drawn.value.every(d => d.space !== undefined))
const columns = computed(() =>
  isPanel.value
    ? [1, 0].map(odd =>
        drawn.value
          .filter(d => (d.space ?? 0) % 2 === odd)
          .sort((a, b) => (a.space ?? 0) - (b.space ?? 0)),
      )
    : [drawn.value],
)
function toggle(id: string) {
  const next = new Set(except.value)
  if (!next.delete(id)) next.add(id)
  except.value = next
}
</script>

<template>
  <div class="pick" :class="{ panel: isPanel }" role="group" aria-label="touch what differs">
    <div v-for="(column, k) in columns" :key="k" class="column">
      <UButton
        v-for="d in column"
        :key="d.id"
        color="neutral"
        variant="ghost"
        class="one bare"
        :class="{ off: except.has(d.id) }"
        :aria-pressed="except.has(d.id)"
        :data-thing="d.id"
        @click="toggle(d.id)"
      >
        <OutletFace v-if="d.outlet" :outlet="d.outlet" :site="job.site" :size="40" />
        <span v-else-if="d.space !== undefined" class="plate"
          ><b>{{ d.amps ?? '?' }}</b
          ><span class="no">{{ d.space }}</span></span
        >
        <span class="small">{{ d.label.replace(/^space \d+ · /, '') }}</span>
      </UButton>
    </div>
  </div>
</template>

<style scoped>
.pick {
  background: var(--steel);
  border: 1px solid var(--steel-edge);
  border-radius: 4px;
  padding: 0.5rem;
}
.column {
  display: flex;
  flex-wrap: wrap;
  gap: 0.35rem;
}
.panel {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 0.5rem;
}
.panel .column {
  flex-direction: column;
}
.one {
  display: flex;
  align-items: center;
  gap: 0.45rem;
  min-height: 44px;
  padding: 0.15rem 0.5rem 0.15rem 0.2rem;
  text-align: left;
  border: 2px solid transparent;
  border-radius: 4px;
}
.one.off {
  border: 2px dashed var(--repair);
  text-decoration: line-through;
}
.plate {
  position: relative;
  flex: none;
  width: 54px;
  height: 34px;
  border-radius: 3px;
  background: var(--device);
  color: var(--device-ink);
  display: grid;
  place-items: center;
}
.no {
  position: absolute;
  left: 4px;
  top: 1px;
  font-size: 0.65rem;
  color: var(--device-soft);
}
</style>
