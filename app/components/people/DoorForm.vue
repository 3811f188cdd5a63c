<script lang="ts">
import type { z } from 'zod'

export interface DoorFormProps {
  title: string
  text: string
  schema: z.ZodType
  fields: readonly {
    name: string
    label: string
    type?: string
    autocomplete: string
    help?: string
  }[]
  submit: string
  problem: string
  isBusy: boolean
}
export interface DoorFormEmits {
  submit: []
}
</script>

<script setup lang="ts">
const state = defineModel<Record<string, string>>('state', { required: true })
const { title, text, schema, fields, submit, problem, isBusy } = defineProps<DoorFormProps>()
const emit = defineEmits<DoorFormEmits>()
</script>

<template>
  <main class="door">
    <p class="mark">corvit</p>
    <h1>{{ title }}</h1>
    <p class="soft">{{ text }}</p>
    <UForm :schema="schema" :state="state" class="fields" @submit="emit('submit')">
      <UFormField v-for="f in fields" :key="f.name" :name="f.name" :label="f.label" :help="f.help">
        <UInput
          v-model="state[f.name]"
          :type="f.type ?? 'text'"
          :autocomplete="f.autocomplete"
          size="xl"
          class="w-full"
        />
      </UFormField>
      <UAlert
        v-if="problem"
        color="error"
        variant="subtle"
        icon="lucide:triangle-alert"
        :title="problem"
      />
      <UButton type="submit" size="xl" block :loading="isBusy">{{ submit }}</UButton>
    </UForm>
    <slot />
  </main>
</template>

<style scoped>
.door {
  max-width: 26rem;
  margin: 0 auto;
  padding: 12vh 1.2rem 3rem;
  display: grid;
  gap: 0.8rem;
}
.mark {
  font-weight: 700;
  color: var(--touch);
}
h1 {
  font-size: 1.7rem;
}
.fields {
  display: grid;
  gap: 1rem;
  margin-top: 0.6rem;
}
</style>
