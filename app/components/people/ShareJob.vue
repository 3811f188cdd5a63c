<script lang="ts">
export interface ShareJobProps {
  jobId: string
  name: string
}
</script>

<script setup lang="ts">
import { REPORT_TITLES, REPORT_VOICES, type ReportVoice } from '#core'
import { Access, Links, MadeLink, type Link, type Person } from '#shared/people'

const { jobId, name } = defineProps<ShareJobProps>()
const isOpen = defineModel<boolean>('open', { required: true })
const session = useSessionStore()
const members = ref<string[]>([])
const everyone = ref<Person[]>([])
const links = ref<Link[]>([])
const voice = ref<ReportVoice>('inspector')
const voices = REPORT_VOICES.map(value => ({ value, label: REPORT_TITLES[value] }))
const days = ref(14)
const made = ref('')
const problem = ref('')

async function attempt(run: () => Promise<void>) {
  problem.value = ''
  try {
    await run()
  } catch (error) {
    problem.value = (error as Error).message
  }
}
function takeAccess(access: { members: Person[]; others: Person[] }) {
  members.value = access.members.map(m => m.id)
  everyone.value = [...access.members, ...access.others]
}
watch(
  isOpen,
  open => {
    made.value = ''
    if (!open) return
    void attempt(async () => {
      takeAccess(await api(`/api/jobs/${jobId}/people`, Access))
      links.value = (await api(`/api/jobs/${jobId}/links`, Links)).links
    })
  },
  { immediate: true },
)
const share = (ids: string[]) =>
  attempt(async () => {
    takeAccess(
      await api(`/api/jobs/${jobId}/people`, Access, {
        ...postJson({ members: ids }),
        method: 'PUT',
      }),
    )
  })
const make = () =>
  attempt(async () => {
    const link = await api(
      `/api/jobs/${jobId}/links`,
      MadeLink,
      postJson({ voice: voice.value, days: days.value }),
    )
    made.value = `${location.origin}/read/${link.token}`
    links.value = [link, ...links.value]
  })
const revoke = (id: string) =>
  attempt(async () => {
    await apiDone(`/api/jobs/${jobId}/links/${id}`, { method: 'DELETE' })
    links.value = (await api(`/api/jobs/${jobId}/links`, Links)).links
  })
const items = computed(() =>
  everyone.value.map(p => ({ label: `${p.name} (${p.role})`, value: p.id })),
)
const day = (at: string) => new Date(at).toLocaleDateString('en-US', { dateStyle: 'medium' })
const isOver = (l: Link) => l.isRevoked || Date.parse(l.expiresAt) < Date.now()
</script>

<template>
  <UModal
    v-model:open="isOpen"
    :title="`Share ${name}`"
    description="With people who have an account here, or one report with anybody who holds a link."
  >
    <template #body>
      <div class="stack">
        <UAlert v-if="problem" color="error" variant="subtle" :title="problem" />
        <UFormField v-if="!session.isDemo" label="People who may record in it">
          <USelectMenu
            :model-value="members"
            :items="items"
            value-key="value"
            multiple
            size="lg"
            class="w-full"
            placeholder="nobody else"
            @update:model-value="share"
          />
        </UFormField>
        <h3>A link to the report</h3>
        <div class="row">
          <USelect
            v-model="voice"
            :items="voices"
            size="lg"
            aria-label="voice of the report"
            class="w-56"
          />
          <UInputNumber
            v-model="days"
            :min="1"
            :max="365"
            size="lg"
            aria-label="days the link opens the report"
            class="w-32"
          />
          <span class="soft">days</span>
          <UButton size="lg" @click="make">Make the link</UButton>
        </div>
        <UFormField v-if="made" label="Copy it now; it is not shown again"
          ><UInput :model-value="made" readonly size="lg" class="w-full" data-testid="made-link"
        /></UFormField>
        <ul class="list">
          <li v-for="l in links" :key="l.id">
            <span class="grow"
              >{{ l.voice }} · made {{ day(l.madeAt) }} ·
              {{
                l.isRevoked ? 'revoked' : isOver(l) ? 'over' : `opens until ${day(l.expiresAt)}`
              }}</span
            >
            <UButton
              v-if="!isOver(l)"
              color="neutral"
              variant="ghost"
              size="lg"
              @click="revoke(l.id)"
              >Revoke</UButton
            >
          </li>
        </ul>
      </div>
    </template>
  </UModal>
</template>

<style scoped>
.stack {
  display: grid;
  gap: 0.9rem;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: center;
}
li {
  display: flex;
  align-items: center;
  gap: 0.6rem;
  min-height: 48px;
  border-bottom: 1px solid var(--line);
}
.grow {
  flex: 1;
}
</style>
