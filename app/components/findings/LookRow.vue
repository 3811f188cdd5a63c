<script lang="ts">
import type { OpenLook } from '#core'

export interface LookRowProps {
  look: OpenLook
  unnamed?: boolean
}
export interface LookRowEmits {
  pick: [subject: string]
}
</script>

<script setup lang="ts">
const { look, unnamed = false } = defineProps<LookRowProps>()
const emit = defineEmits<LookRowEmits>()
</script>

<template>
  <UButton color="neutral" variant="ghost" class="look bare" @click="emit('pick', look.subject)">
    <SeverityMark kind="undecided" :size="20" />
    <span class="body">
      <span class="fact"
        ><span v-if="!unnamed">{{ look.label }}: </span>{{ look.fact }}</span
      >
      <span class="small soft"
        >{{ look.look }}<template v-if="look.with"> ({{ look.with }})</template></span
      >
      <span v-if="look.state === 'blocked'" class="small why"
        >could not be seen: {{ look.reason }}</span
      >
      <span v-else-if="look.state === 'assumed'" class="small why">only assumed so far</span>
    </span>
    <span v-if="look.settles" class="small settles"
      >answers {{ look.settles }} {{ look.settles === 1 ? 'check' : 'checks' }}</span
    >
  </UButton>
</template>

<style scoped>
.look {
  display: grid;
  grid-template-columns: 20px 1fr auto;
  gap: 0.7rem;
  text-align: left;
  width: 100%;
  min-height: 44px;
  padding: 0.45rem 0;
  cursor: pointer;
  align-items: start;
}
.look:hover .fact {
  color: var(--touch);
}
.body {
  display: grid;
}
.fact {
  font-weight: 600;
}
.settles {
  color: var(--cool);
  font-weight: 600;
  white-space: nowrap;
}
.why {
  color: var(--repair);
}
</style>
