<script setup lang="ts">
const job = useJobStore()
const device = useDeviceStore()
const text = computed(() => {
  const left = job.unsent
  switch (job.saveState) {
    case 'server':
      return 'on the server'
    case 'sending':
      return left > 0 ? `sending ${left}` : 'sending'
    case 'device':
      return `on this device: ${left} not sent`
    case 'needs-you':
      return device.storageProblem ? `only in this window: ${left}` : 'needs you'
  }
  return ''
})
const why = computed(() => {
  if (device.storageProblem)
    return `This device does not store: ${device.storageProblem}. Keep this window open until all is sent`
  if (job.refused > 0) return `${job.refused} not taken by the server`
  return device.stop?.message ?? ''
})
</script>

<template>
  <NuxtLink
    to="/unsent"
    class="dot"
    :class="job.saveState"
    role="status"
    data-testid="save-dot"
    :data-state="job.saveState"
    :title="why"
    :aria-label="`Saved: ${text}. ${why}`"
  >
    <span class="words">{{ text }}</span><i aria-hidden="true" />
  </NuxtLink>
</template>

<style scoped>
.dot {
  display: inline-flex;
  align-items: center;
  gap: 0.5rem;
  min-height: 44px;
  color: var(--soft);
  font-size: 0.85rem;
}
i {
  width: 11px;
  height: 11px;
  border-radius: 50%;
  background: var(--cool);
  flex: none;
}
.sending i {
  background: none;
  border: 2px solid var(--cool);
}
.device i {
  border-radius: 2px;
  background: none;
  border: 3px solid var(--cool);
}
.needs-you i {
  background: var(--repair);
  border-radius: 2px;
  transform: rotate(45deg);
}
.needs-you {
  color: var(--repair);
  font-weight: 600;
}
.words {
  max-width: 15rem;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
@media (max-width: 900px) {
  .server .words {
    display: none;
  }
  .words {
    max-width: 8.5rem;
  }
}
</style>
