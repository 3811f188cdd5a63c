<script setup lang="ts">
import type { Paper } from '#core'
import { PaperOut } from '#shared/api'

const route = useRoute()
const paper = shallowRef<Paper>()
const problem = ref('')
onMounted(async () => {
  try {
    const read = await api(
      `/api/shared/${encodeURIComponent(String(route.params.token))}`,
      PaperOut,
    )
    paper.value = read as Paper
  } catch (error) {
    problem.value = (error as Error).message
  }
})
</script>

<template>
  <main class="read">
    <p class="mark">corvit</p>
    <UAlert
      v-if="problem"
      color="error"
      variant="subtle"
      icon="lucide:triangle-alert"
      :title="problem"
      data-testid="link-over"
    />
    <p v-else-if="!paper" class="soft" role="status">Opening the report</p>
    <PaperSheet v-else :paper="paper" />
  </main>
</template>

<style scoped>
.read {
  max-width: 54rem;
  margin: 0 auto;
  padding: 1.4rem 1.2rem 3rem;
}
.mark {
  font-weight: 700;
  color: var(--touch);
  margin-bottom: 0.8rem;
}
</style>
