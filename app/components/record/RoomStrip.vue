<script lang="ts">
import type { Subject } from '#core'

export interface RoomStripProps {
  outlets: readonly Subject<'outlet'>[]
  selected?: string
  /** Outlets without a room cannot be added to, or put in order. */
  isFixed?: boolean
}
export interface RoomStripEmits {
  pick: [outlet: string]
  add: [type: string, count: number]
  order: [ids: readonly string[]]
}
</script>

<script setup lang="ts">
import { VueDraggable } from 'vue-draggable-plus'
import { valueOf } from '#core'

const { outlets, selected = '', isFixed = false } = defineProps<RoomStripProps>()
const emit = defineEmits<RoomStripEmits>()
const job = useJobStore()
const { markOf } = useMarks()
const list = computed({
  get: () => [...outlets],
  set: next =>
    emit(
      'order',
      next.map(o => o.id),
    ),
})
/** On a phone a short hold lifts a face; a swipe scrolls the strip. */
const HOLD_MS = 250
</script>

<template>
  <div class="strip">
    <VueDraggable
      v-model="list"
      tag="ol"
      class="faces"
      :animation="150"
      :delay="HOLD_MS"
      :delay-on-touch-only="true"
      :disabled="isFixed"
    >
      <li v-for="o in list" :key="o.id">
        <UButton
          color="neutral"
          variant="ghost"
          class="face bare"
          :class="{ on: o.id === selected }"
          :data-outlet="o.id"
          :aria-pressed="o.id === selected"
          @click="emit('pick', o.id)"
        >
          <span class="drawn"
            ><OutletFace :outlet="o" :site="job.site" :size="58" /><SeverityMark
              v-if="markOf(o)"
              class="corner"
              :kind="markOf(o)!"
              :size="15"
          /></span>
          <span class="small name">{{ valueOf(o, 'name') ?? 'outlet' }}</span>
        </UButton>
      </li>
    </VueDraggable>
    <div v-if="!isFixed" class="adds" role="group" aria-label="add outlets">
      <UButton
        v-for="k in OUTLET_KINDS"
        :key="k.type"
        :icon="k.icon"
        color="primary"
        variant="outline"
        size="lg"
        :label="`+ ${k.word}`"
        :data-add="k.type"
        @click="emit('add', k.type, 1)"
      /><UButton
        color="primary"
        variant="outline"
        size="lg"
        label="+ 3 receptacles"
        data-add="three"
        @click="emit('add', 'receptacle', 3)"
      />
    </div>
  </div>
</template>

<style scoped>
.strip {
  background: var(--tint);
  border-radius: 4px;
  padding: 0.6rem 0.7rem;
  display: grid;
  gap: 0.6rem;
}
.faces {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem;
  padding-bottom: 0.2rem;
  min-height: 20px;
}
.face {
  width: 86px;
  min-height: 96px;
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: flex-start;
  gap: 0.15rem;
  padding: 0.3rem 0.15rem;
  border-radius: 6px;
  border: 2px solid transparent;
}
.face.on {
  border-color: var(--touch);
  background: var(--sheet);
}
.drawn {
  position: relative;
}
.corner {
  position: absolute;
  top: -3px;
  right: -5px;
}
.name {
  text-align: center;
  line-height: 1.15;
  overflow-wrap: anywhere;
}
.adds {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
@media (max-width: 900px) {
  .faces {
    flex-wrap: nowrap;
    overflow-x: auto;
  }
  .adds {
    flex-wrap: nowrap;
    overflow-x: auto;
    scrollbar-width: none;
  }
  .adds > * {
    flex: none;
  }
}
</style>
