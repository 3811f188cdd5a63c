<script lang="ts">
export interface PlainShellProps {
  title: string
  subtitle?: string
  isWide?: boolean
}
</script>

<script setup lang="ts">
const { title, subtitle = '', isWide = false } = defineProps<PlainShellProps>()
</script>

<template>
  <main class="plain-shell" :class="{ wide: isWide }">
    <header>
      <NuxtLink to="/" class="mark"><UIcon name="lucide:chevron-left" /> Jobs</NuxtLink>
      <h1>{{ title }}</h1>
      <p v-if="subtitle" class="soft">{{ subtitle }}</p>
    </header>
    <slot />
  </main>
</template>

<style scoped>
.plain-shell {
  max-width: 52rem;
  margin: 0 auto;
  padding: 1.4rem 1.2rem 3rem;
  display: grid;
  gap: 1.2rem;
}
.wide {
  max-width: 68rem;
}
.mark {
  color: var(--touch);
  font-weight: 600;
  display: inline-flex;
  align-items: center;
  gap: 0.2rem;
  min-height: 44px;
}
h1 {
  font-size: 1.7rem;
}
</style>
