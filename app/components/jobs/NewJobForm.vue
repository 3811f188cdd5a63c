<script lang="ts">
import type { NewJob as NewJobInput } from '#shared/api'

export interface NewJobFormProps {
  busy?: boolean
  /** Why the job could not be made. */
  refusal?: string
  /** Edition in force where this person works. */
  edition?: (typeof EDITIONS)[number] | null
}
export interface NewJobFormEmits {
  make: [job: NewJobInput]
  leave: []
}
</script>

<script setup lang="ts">
import { NewJob, PURPOSES } from '#shared/api'
import { EDITIONS, PRESETS, type Purpose } from '#core'

const { busy = false, refusal = '', edition = null } = defineProps<NewJobFormProps>()
const emit = defineEmits<NewJobFormEmits>()
const form = reactive({
  name: '',
  street: '',
  purpose: 'purchase' as Purpose,
  yearBuilt: '',
  edition: (edition ?? 2020) as (typeof EDITIONS)[number],
  assessor: '',
})
const problem = ref('')
const LABELS: Record<string, string> = {
  name: 'Name',
  yearBuilt: 'Year built',
  street: 'Street',
  edition: 'Edition',
}
/** One tap says what the visit covers; the scope can be changed any time. */
const purposes = PURPOSES.map(p => ({
  value: p,
  label: PURPOSE_NAMES[p],
  description: PRESETS[p].title,
}))
const editions = EDITIONS.map(e => ({ value: e, label: String(e) }))

function make() {
  const parsed = NewJob.safeParse({
    name: form.name,
    purpose: form.purpose,
    edition: form.edition,
    ...(form.street.trim() && { street: form.street }),
    ...(form.assessor.trim() && { assessor: form.assessor }),
    ...(form.yearBuilt.trim() && { yearBuilt: Number(form.yearBuilt) }),
  })
  if (parsed.success) {
    problem.value = ''
    emit('make', parsed.data)
    return
  }
  const issue = parsed.error.issues[0]
  problem.value = `${LABELS[String(issue?.path[0])] ?? 'Form'}: ${issue?.message ?? 'not understood'}`
}
</script>

<template>
  <form class="new" @submit.prevent="make">
    <h2>New job</h2>
    <UFormField label="Name of the job" required>
      <UInput v-model="form.name" class="w-full" name="name" maxlength="200" autofocus />
    </UFormField>
    <URadioGroup
      v-model="form.purpose"
      :items="purposes"
      legend="What for, and what is looked at"
      variant="card"
      class="purposes"
      :ui="{ fieldset: 'grid gap-2 sm:grid-cols-2' }"
      data-testid="purposes"
    />
    <div class="pair">
      <UFormField label="Year built" hint="as far as it is known">
        <UInput
          v-model="form.yearBuilt"
          class="w-full"
          name="yearBuilt"
          inputmode="numeric"
          maxlength="4"
        />
      </UFormField>
      <UFormField label="Code edition in force there">
        <USelect v-model="form.edition" class="w-full" :items="editions" aria-label="edition" />
      </UFormField>
      <UFormField label="Street" hint="optional">
        <UInput v-model="form.street" class="w-full" name="street" maxlength="200" />
      </UFormField>
      <UFormField label="Your name" hint="goes with every observation">
        <UInput v-model="form.assessor" class="w-full" name="assessor" maxlength="120" />
      </UFormField>
    </div>
    <p v-if="problem || refusal" role="alert" class="why">{{ problem || refusal }}</p>
    <div class="row">
      <UButton type="submit" size="xl" label="Start" :loading="busy" />
      <UButton color="neutral" variant="outline" size="xl" label="Cancel" @click="emit('leave')" />
    </div>
  </form>
</template>

<style scoped>
.new {
  display: grid;
  gap: 1.1rem;
  padding: 1.2rem 1.3rem 1.4rem;
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: 4px;
  margin-bottom: 1.4rem;
}
.pair {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(15rem, 1fr));
  gap: 1rem;
}
.row {
  display: flex;
  gap: 0.5rem;
}
.why {
  color: var(--now);
  font-weight: 600;
}
</style>
