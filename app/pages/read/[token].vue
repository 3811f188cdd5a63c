<script setup lang="ts">
import { Report } from '#core'

const route = useRoute()
const report = shallowRef<Report>()
const problem = ref('')
onMounted(async () => {
  try {
    report.value = await api(
      `/api/shared/${encodeURIComponent(String(route.params.token))}`,
      Report,
    )
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
    <p v-else-if="!report" class="soft" role="status">Opening the report</p>
    <ReportPaper v-else :report="report" />
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
