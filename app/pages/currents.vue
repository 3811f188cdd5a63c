<script setup lang="ts">
import { Ledger, readJob, teaching } from '#core'

/** The currents of a made-up house; inside a job they are those of its own. */
const job = useJobStore()
onMounted(() => job.close())
let made = 0
const { observations } = readJob(teaching(), {
  at: '2026-01-01T00:00:00.000Z',
  by: 'teaching house',
  nextId: () => `t${made++}`,
})
const { house } = new Ledger(observations)
</script>

<template>
  <AppShell title="Currents" subtitle="A made-up house; inside a job, your own" wide>
    <CurrentsBoard :house="house" />
  </AppShell>
</template>
