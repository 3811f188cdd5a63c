<script setup lang="ts">
import type { Paper } from '#core'
import { SharedReport, type Signed } from '#shared/files'

const route = useRoute()
const paper = shallowRef<Paper>()
const signed = shallowRef<Signed | null>(null)
const at = `/api/shared/${encodeURIComponent(String(route.params.token))}`
const problem = ref('')
/** The head of the seal, in fours: enough to compare by eye. */
const sealOf = ({ hash }: Signed) => hash.slice(0, 16).replace(/(.{4})(?=.)/g, '$1 ')
onMounted(async () => {
  try {
    const read = await api(at, SharedReport)
    paper.value = read.paper as Paper
    signed.value = read.signed
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
    <p v-else-if="!paper" class="soft" role="status">Opening the report</p>
    <template v-else>
      <UAlert
        v-if="signed"
        color="success"
        variant="subtle"
        icon="lucide:check"
        :title="`Signed by ${signed.signedBy} on ${signed.signedOn}, revision ${signed.number}`"
        :description="`Seal ${sealOf(signed)}. What was recorded since is not in it.`"
        :actions="[
          {
            label: 'PDF as signed',
            icon: 'lucide:download',
            size: 'xl',
            to: `${at}/signed.pdf`,
            external: true,
          },
        ]"
        class="seal"
        data-testid="link-signed"
      />
      <UAlert
        v-else
        color="warning"
        variant="subtle"
        icon="lucide:history"
        title="Not signed yet"
        description="This is the report as it stands now; it may still change."
        class="seal"
        data-testid="link-unsigned"
      />
      <PaperSheet :paper="paper" />
    </template>
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
.seal {
  margin-bottom: 1rem;
}
</style>
