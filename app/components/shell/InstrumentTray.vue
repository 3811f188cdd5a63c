<script setup lang="ts">
const instruments = useInstrumentStore()
const fits = (serial: string) => instruments.fitting.some(i => i.serial === serial)
</script>

<template>
  <USlideover
    v-model:open="instruments.isTrayOpen"
    side="right"
    title="Instruments"
    description="What is connected drops its reading into the field that is open"
  >
    <template #body>
      <p v-if="instruments.problem" role="alert" class="fails">{{ instruments.problem }}</p>
      <ul class="tray">
        <li v-for="i in instruments.atHand" :key="i.serial" :class="{ fits: fits(i.serial) }">
          <span class="what"
            ><b>{{ i.name }}</b>
            <span class="small soft"
              >{{ i.serial }}{{ i.isSimulated ? ', simulated' : ''
              }}{{ fits(i.serial) ? ', reads the open field' : '' }}</span
            ></span
          >
          <UButton
            :color="instruments.isConnected(i) ? 'primary' : 'neutral'"
            variant="outline"
            :aria-pressed="instruments.isConnected(i)"
            :label="instruments.isConnected(i) ? 'Connected' : 'Connect'"
            @click="instruments.toggle(i)"
          />
        </li>
      </ul>
      <p class="small soft">
        Simulated instruments read this house as it is recorded, for trying and teaching. What is
        taken from one says so for ever and counts as assumed: it may raise an alarm, and never
        clears one.
      </p>
    </template>
  </USlideover>
</template>

<style scoped>
.tray li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 1rem;
  min-height: 56px;
  border-bottom: 1px solid var(--line);
}
.fits {
  background: var(--touch-tint);
}
.what {
  display: grid;
}
</style>
