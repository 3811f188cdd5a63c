<script setup lang="ts">
await navigateTo(`/jobs/${useRoute().params.jobId as string}/panel`, { replace: true })
</script>

<template>
  <div />
</template>
