<script setup lang="ts">
import { THEMES, type Theme } from '#core'

/** What the faults of a round are about. */
const theme = defineModel<Theme>({ required: true })
</script>

<template>
  <UFormField label="What about">
    <div class="chips" role="group" aria-label="what about">
      <UButton
        v-for="t in THEMES"
        :key="t"
        color="neutral"
        variant="outline"
        class="chip"
        :aria-pressed="theme === t"
        @click="theme = t"
        >{{ t }}</UButton
      >
    </div>
  </UFormField>
</template>

<style scoped>
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
</style>
