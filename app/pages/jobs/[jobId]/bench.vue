<script setup lang="ts">
import { valueOf } from '#core'

const { job, problem, isLoading, load } = useOpenJob()
</script>

<template>
  <AppShell title="Calculators" :subtitle="valueOf(job.site.premises, 'name')">
    <PageState :is-loading="isLoading" :problem="problem" @again="load">
      <BenchBoard />
    </PageState>
  </AppShell>
</template>
