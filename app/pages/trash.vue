<script setup lang="ts">
import { TrashList } from '#shared/api'

const session = useSessionStore()
const jobs =
  ref<{ id: string; name: string; deletedAt: string; goneOn: string; observations: number }[]>()
const problem = ref('')
const leaving = ref<{ id: string; name: string }>()

async function attempt(run: () => Promise<unknown>) {
  problem.value = ''
  try {
    await run()
    jobs.value = (await api('/api/trash', TrashList)).jobs
  } catch (error) {
    problem.value = (error as Error).message
  }
}
const restore = (id: string) => attempt(() => apiDone(`/api/trash/${id}/restore`, postJson({})))
const remove = () =>
  attempt(async () => {
    await apiDone(`/api/trash/${leaving.value!.id}`, { method: 'DELETE' })
    leaving.value = undefined
  })
onMounted(() => attempt(async () => undefined))
const day = (at: string) => new Date(at).toLocaleDateString('en-US', { dateStyle: 'medium' })
</script>

<template>
  <PlainShell title="Trash" subtitle="Deleted jobs can be brought back until the day named here.">
    <UAlert
      v-if="problem"
      color="error"
      variant="subtle"
      icon="lucide:triangle-alert"
      :title="problem"
    />
    <p v-if="!jobs && !problem" class="soft" role="status">Reading the trash</p>
    <p v-else-if="jobs?.length === 0" class="soft">Nothing in the trash.</p>
    <ul v-else class="list">
      <li v-for="j in jobs" :key="j.id">
        <span class="grow"
          ><b>{{ j.name || 'without a name' }}</b
          ><span class="small soft block"
            >deleted {{ day(j.deletedAt) }} · gone on {{ day(j.goneOn) }} ·
            {{ j.observations.toLocaleString('en-US') }} observations</span
          ></span
        >
        <UButton
          color="neutral"
          variant="outline"
          size="lg"
          icon="lucide:undo-2"
          @click="restore(j.id)"
          >Restore</UButton
        >
        <UButton
          v-if="session.may('owner')"
          color="neutral"
          variant="ghost"
          size="lg"
          @click="leaving = j"
          >Delete for good</UButton
        >
      </li>
    </ul>
    <UModal
      :open="leaving !== undefined"
      title="Delete for good"
      description="Its observations and photographs cannot be brought back after this."
      @update:open="leaving = undefined"
    >
      <template #body>
        <div class="acts">
          <UButton color="error" size="lg" @click="remove">Delete {{ leaving?.name }}</UButton>
          <UButton color="neutral" variant="outline" size="lg" @click="leaving = undefined"
            >Cancel</UButton
          >
        </div>
      </template>
    </UModal>
  </PlainShell>
</template>

<style scoped>
.list {
  border-top: 1px solid var(--line);
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: center;
  border-bottom: 1px solid var(--line);
  padding: 0.6rem 0;
}
.grow {
  flex: 1 1 14rem;
}
.acts {
  display: flex;
  gap: 0.6rem;
  flex-wrap: wrap;
}
</style>
