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
    <UButton color="neutral" variant="outline" class="plain" @click="emit('again')"
      >Try again</UButton
    >
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
