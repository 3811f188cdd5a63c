<script setup lang="ts">
const device = useDeviceStore()
const route = useRoute()
// A window with work that is nowhere else says so on every page.
const isAtRisk = computed(() => device.inMemory.length > 0 && !route.path.startsWith('/unsent'))
const onlyHere = computed(
  () =>
    `This device does not store them (${device.storageProblem}). Keep the window open until they are sent.`,
)
</script>

<template>
  <UApp>
    <UAlert
      v-if="isAtRisk"
      color="error"
      icon="lucide:triangle-alert"
      :title="`${device.inMemory.length} observations are only in this window`"
      :description="onlyHere"
    />
    <VitePwaManifest />
    <NuxtLayout>
      <NuxtPage />
    </NuxtLayout>
  </UApp>
</template>
