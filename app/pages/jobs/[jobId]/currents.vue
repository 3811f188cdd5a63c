<script setup lang="ts">
import { valueOf } from '#core'

const { job, problem, isLoading, load } = useOpenJob()
</script>

<template>
  <AppShell title="Currents" :subtitle="valueOf(job.site.premises, 'name')" wide>
    <PageState :is-loading="isLoading" :problem="problem" @again="load">
      <CurrentsBoard :house="job.house" />
    </PageState>
  </AppShell>
</template>
