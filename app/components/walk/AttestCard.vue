<script lang="ts">
import type { Attestation } from '#core'

export interface AttestCardProps {
  attestation: Attestation
}
export interface AttestCardEmits {
  attest: []
}
</script>

<script setup lang="ts">
const { attestation } = defineProps<AttestCardProps>()
const emit = defineEmits<AttestCardEmits>()
const things = computed(() => new Set(attestation.writes.map(w => w.thing)).size)
const checks = computed(() =>
  attestation.judgments === 1 ? '1 check' : `${attestation.judgments} checks`,
)
</script>

<template>
  <section class="attest" data-testid="attest">
    <h3>Nothing else is wrong by eye</h3>
    <p class="small soft">
      Record first what is out of the ordinary. Then, for
      {{ things === 1 ? 'what is' : `all ${things} things` }} here:
    </p>
    <ul>
      <li v-for="s in attestation.says" :key="s">{{ s }}</li>
    </ul>
    <UButton
      icon="i-lucide-eye"
      size="lg"
      :label="`I looked at all of it: answers ${checks}`"
      @click="emit('attest')"
    />
  </section>
</template>

<style scoped>
.attest {
  border: 1.5px solid var(--line);
  border-left: 4px solid var(--touch);
  padding: 0.8rem 1rem 1rem;
  margin: 0.7rem 0 0.4rem;
  display: grid;
  gap: 0.45rem;
  justify-items: start;
}
ul {
  list-style: none;
  display: flex;
  flex-wrap: wrap;
  gap: 0.15rem 1.1rem;
}
li::before {
  content: '– ';
  color: var(--soft);
}
</style>
