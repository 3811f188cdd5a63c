<script lang="ts">
export interface PageStateProps {
  isLoading: boolean
  problem: string
}
</script>

<script setup lang="ts">
const { isLoading, problem } = defineProps<PageStateProps>()
const emit = defineEmits<{ again: [] }>()
</script>

<template>
  <p v-if="isLoading" class="state soft" role="status">Opening the job</p>
  <div v-else-if="problem" class="state" role="alert">
    <h2>It could not be opened</h2>
    <p class="soft">{{ problem }}. Nothing was lost.</p>
    <button type="button" class="plain" @click="emit('again')">Try again</button>
  </div>
  <slot v-else />
</template>

<style scoped>
.state {
  padding: 3rem 0;
  display: grid;
  gap: 0.8rem;
  justify-items: start;
}
</style>
