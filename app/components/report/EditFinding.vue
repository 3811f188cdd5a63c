<script lang="ts">
import {
  editOf,
  editsOf,
  PREMISES_ID,
  ruleById,
  SEVERITIES,
  valueOf,
  type FindingMark,
  type Severity,
} from '#core'

export interface EditFindingProps {
  finding: FindingMark
  phrases: readonly { readonly name: string; readonly words: string }[]
}
</script>

<script setup lang="ts">
const { finding, phrases } = defineProps<EditFindingProps>()
const isOpen = defineModel<boolean>('open', { required: true })
const job = useJobStore()

const first = computed(() => finding.subjects[0] ?? '')
const result = computed(() =>
  [...job.results.values()].find(r => r.rule === finding.rule && r.subject.id === first.value),
)
const where = computed(() =>
  finding.subjects.length === 1
    ? (result.value?.subject.label ?? '')
    : `${finding.subjects.length} places`,
)
const words = ref('')
const order = ref<number>()
const isLeftOut = ref(false)
const reason = ref('')
const severity = ref<Severity>('note')
const severityWhy = ref('')
const before = computed(() => editsOf(job.house).get(`${finding.rule} ${first.value}`))
const override = computed(() => job.site.overrides.get(`${finding.rule} ${first.value}`))
watch(
  () => finding,
  () => {
    words.value = before.value?.words ?? ''
    order.value = before.value?.order
    isLeftOut.value = before.value?.leftOut !== undefined
    reason.value = before.value?.leftOut ?? ''
    severity.value = result.value?.severity ?? 'note'
    severityWhy.value = valueOf(override.value, 'reason') ?? ''
  },
  { immediate: true },
)
const isUrgent = computed(() =>
  [severity.value, result.value?.severity, result.value?.byHand?.computed].includes(
    'make safe now',
  ),
)
const isWeighed = computed(() => severity.value !== (result.value?.severity ?? 'note'))
const problem = computed(() => {
  if (isLeftOut.value && !reason.value.trim()) return 'Say why it is left out; the report says so.'
  if (isWeighed.value && !severityWhy.value.trim()) return 'Say why it is weighed otherwise.'
  return ''
})
const phraseItems = computed(() => phrases.map(p => ({ label: p.name, value: p.words })))

function save() {
  if (problem.value) return
  const drafts: Parameters<typeof job.record>[0][number][] = []
  const note = (subject: string, field: string, value: string | number | boolean) =>
    drafts.push({ act: 'note', subject, field, value, grade: 'told' })
  for (const of of finding.subjects) {
    const known = editOf(job.house, finding.rule, of)
    const subject = known ?? crypto.randomUUID()
    if (known === undefined) {
      drafts.push({ act: 'add', subject, kind: 'edit', parent: PREMISES_ID })
      note(subject, 'rule', finding.rule)
      note(subject, 'of', of)
    }
    note(subject, 'words', words.value.trim())
    if (order.value !== undefined) note(subject, 'order', order.value)
    note(subject, 'isLeftOut', isLeftOut.value && !isUrgent.value)
    note(subject, 'reason', reason.value.trim())
    if (!isWeighed.value) continue
    const weight = job.site.overrides.get(`${finding.rule} ${of}`)?.id ?? crypto.randomUUID()
    if (!job.house.subjects.has(weight)) {
      drafts.push({ act: 'add', subject: weight, kind: 'override', parent: PREMISES_ID })
      note(weight, 'rule', finding.rule)
      note(weight, 'of', of)
    }
    note(weight, 'severity', severity.value)
    note(weight, 'reason', severityWhy.value.trim())
  }
  job.record(drafts)
  isOpen.value = false
}
</script>

<template>
  <UModal
    v-model:open="isOpen"
    :title="ruleById(finding.rule)?.fault ?? 'Finding'"
    :description="where"
  >
    <template #body>
      <div class="form" data-testid="edit-finding">
        <p class="small soft">The judgment stays as it is: {{ result?.why }}.</p>
        <UFormField label="In your own words">
          <UTextarea v-model="words" :rows="4" :maxlength="2000" autoresize class="w-full" />
        </UFormField>
        <USelectMenu
          v-if="phrases.length"
          :items="phraseItems"
          placeholder="Take one of your phrases"
          aria-label="take one of your phrases"
          @update:model-value="(p: { value: string }) => (words = p.value)"
        />
        <UFormField label="How urgent">
          <USelect v-model="severity" :items="[...SEVERITIES]" class="w-full" />
        </UFormField>
        <UFormField v-if="isWeighed || severityWhy" label="Because" required>
          <UInput v-model="severityWhy" :maxlength="400" class="w-full" />
        </UFormField>
        <UFormField label="Place among its kind" help="1 is told first; empty leaves the order.">
          <UInputNumber v-model="order" size="lg" :min="1" :max="999" class="w-full" />
        </UFormField>
        <USwitch
          v-model="isLeftOut"
          :disabled="isUrgent"
          label="Leave it out of the findings"
          :description="
            isUrgent
              ? 'What is to be made safe now is always told.'
              : 'It stays on record, and the report says that it was left out, and why.'
          "
        />
        <UFormField v-if="isLeftOut && !isUrgent" label="Reason" required>
          <UInput v-model="reason" :maxlength="400" class="w-full" />
        </UFormField>
        <p v-if="problem" role="alert" class="fails">{{ problem }}</p>
      </div>
    </template>
    <template #footer>
      <UButton size="xl" :disabled="problem !== ''" label="Keep" @click="save" />
    </template>
  </UModal>
</template>

<style scoped>
.form {
  display: grid;
  gap: 0.9rem;
}
.fails {
  color: var(--now);
  font-weight: 600;
}
</style>
