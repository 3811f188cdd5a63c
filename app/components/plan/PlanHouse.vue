<script lang="ts">
import type { PlainPlan } from '~/workers/plan.worker'

export interface PlanHouseProps {
  plan: PlainPlan
}
</script>

<script setup lang="ts">
import { labelOf, valueOf, type Subject } from '#core'

const { plan } = defineProps<PlanHouseProps>()
const emit = defineEmits<{ pick: [choice: number] }>()
const job = useJobStore()

/** Number of the stage in which something is done at a thing, by the thing; and the choice it belongs to. */
const doneAt = computed(() => {
  const map = new Map<string, { stage: number; choice: number }>()
  plan.stages.forEach((stage, s) => {
    for (const choice of stage.choices) {
      const c = plan.choices[choice]
      const things = [
        ...(c?.steps.map(t => t.subject) ?? []),
        ...(c?.findings.map(f => f.subject) ?? []),
      ]
      for (const id of things) if (!map.has(id)) map.set(id, { stage: s + 1, choice })
    }
  })
  return map
})
const leftAt = computed(() => new Set([...plan.left, ...plan.relax].map(f => f.subject)))
interface Dot {
  readonly id: string
  readonly label: string
  readonly mark: { stage: number; choice: number } | undefined
  readonly isLeft: boolean
}
interface Row {
  readonly id: string
  readonly name: string
  readonly dots: readonly Dot[]
}
const dotOf = (thing: Subject): Dot => ({
  id: thing.id,
  label: labelOf(job.site, thing),
  mark: doneAt.value.get(thing.id),
  isLeft: leftAt.value.has(thing.id),
})
/** Panel by panel: its own parts, then each circuit from its breaker outward; what stays untouched is left out. */
const panels = computed(() =>
  job.site.all.enclosure.flatMap(panel => {
    const own = [panel, ...job.site.children(panel, 'bar')].map(dotOf)
    const rows: Row[] = job.site.children(panel, 'breaker').flatMap(breaker => {
      const circuits = job.site.circuitsOf(breaker)
      const dots = [
        dotOf(breaker),
        ...circuits.flatMap(c => [
          dotOf(c),
          ...job.site.children(c, 'segment').map(dotOf),
          ...job.site.outletsOf(c).map(dotOf),
        ]),
      ]
      if (!dots.some(d => d.mark || d.isLeft)) return []
      const label = circuits
        .map(c => valueOf(c, 'label'))
        .filter(Boolean)
        .join(', ')
      const space = valueOf(breaker, 'space')
      return { id: breaker.id, name: `${space ?? ''} ${label || 'not traced'}`.trim(), dots }
    })
    const dots = own.filter(d => d.mark || d.isLeft)
    const all = dots.length > 0 ? [{ id: panel.id, name: 'the panel itself', dots }, ...rows] : rows
    return all.length > 0
      ? { id: panel.id, name: valueOf(panel, 'name') ?? 'panel', rows: all }
      : []
  }),
)
</script>

<template>
  <div class="house" role="group" aria-label="what is done where">
    <section v-for="p in panels" :key="p.id">
      <h3>{{ p.name }}</h3>
      <ul>
        <li v-for="r in p.rows" :key="r.id">
          <span class="name small">{{ r.name }}</span>
          <span class="dots chain">
            <template v-for="d in r.dots" :key="d.id">
              <UButton
                v-if="d.mark"
                color="neutral"
                variant="ghost"
                class="dot done bare"
                :aria-label="`${d.label}, stage ${d.mark.stage}`"
                @click="emit('pick', d.mark.choice)"
                >{{ d.mark.stage }}</UButton
              >
              <span v-else class="dot" :class="{ left: d.isLeft }" :title="d.label" />
            </template>
          </span>
        </li>
      </ul>
    </section>
    <p class="small soft legend">
      <span class="dot done">1</span> done in stage 1 <span class="dot left" /> stays as it is
      <span class="dot" /> not touched
    </p>
  </div>
</template>

<style scoped>
.house {
  display: grid;
  gap: 1rem;
}
h3 {
  font-weight: 700;
}
li {
  display: grid;
  grid-template-columns: 10rem minmax(0, 1fr);
  gap: 0.6rem;
  align-items: center;
  padding: 0.15rem 0;
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.dots {
  display: flex;
  flex-wrap: wrap;
  gap: 3px;
  align-items: center;
}
.dot {
  width: 10px;
  height: 10px;
  border: 1px solid var(--steel-edge);
  border-radius: 2px;
  display: inline-grid;
  place-items: center;
  font-size: 0.72rem;
  line-height: 1;
  padding: 0;
}
.dot.done {
  width: 24px;
  height: 24px;
  background: var(--touch);
  border-color: var(--touch);
  color: var(--paper);
  font-weight: 700;
}
.dot.left {
  border: 2px dashed var(--repair);
}
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  align-items: center;
}
@media (max-width: 900px) {
  li {
    grid-template-columns: minmax(0, 1fr);
  }
  .dot.done {
    width: 34px;
    height: 34px;
  }
}
</style>
