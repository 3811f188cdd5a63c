<script setup lang="ts">
const job = useJobStore()
const text = computed(() => ({
  'on-disk': 'on disk', 'saving': 'saving', 'held': `kept on this device, not on disk: ${job.pending.length}`, 'refused': `not taken: ${job.saveProblem}`,
})[job.saveState])
</script>

<template>
  <span class="dot" :class="job.saveState" role="status" data-testid="save-dot" :data-state="job.saveState" :title="job.saveProblem">
    <span class="words">{{ text }}</span><i aria-hidden="true" />
  </span>
</template>

<style scoped>
.dot { display: inline-flex; align-items: center; gap: 0.5rem; color: var(--soft); font-size: 0.85rem; }
i { width: 11px; height: 11px; border-radius: 50%; background: var(--cool); flex: none; }
.saving i { background: none; border: 2px solid var(--cool); }
.held i, .refused i { background: none; border: 3px solid var(--repair); border-radius: 2px; }
.held, .refused { color: var(--repair); font-weight: 600; }
.refused .words { max-width: 22rem; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
@media (max-width: 900px) { .on-disk .words { display: none; } }
</style>
