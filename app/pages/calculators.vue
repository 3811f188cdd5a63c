<script setup lang="ts">
/** The calculators without a job: nothing here is kept. */
const job = useJobStore()
onMounted(() => job.close())
</script>

<template>
  <AppShell title="Calculators" subtitle="Nothing is kept here; inside a job they read the house">
    <BenchBoard />
  </AppShell>
</template>
