<script lang="ts">
import type { Call, Severity } from '#core'

export interface CallFaultProps {
  /** What can be called here. */
  calls: readonly { readonly rule: string; readonly subject: string; readonly fault: string }[]
}
export interface CallFaultEmits {
  call: [made: Call]
}
</script>

<script setup lang="ts">
import { remedyById, ruleById, SEVERITIES } from '#core'

const { calls } = defineProps<CallFaultProps>()
const emit = defineEmits<CallFaultEmits>()
const chosen = ref<string>()
const severity = ref<Severity>()
const remedy = ref<string>()
const faults = computed(() => calls.map(c => ({ value: `${c.rule} ${c.subject}`, label: c.fault })))
const call = computed(() => calls.find(c => `${c.rule} ${c.subject}` === chosen.value))
const rule = computed(() => call.value?.rule)
const remedies = computed(() =>
  (rule.value ? (ruleById(rule.value)?.remedies ?? []) : []).map(id => ({
    value: id,
    label: remedyById(id)?.title ?? id,
  })),
)
watch(chosen, () => (remedy.value = undefined))
function make() {
  if (!call.value || !severity.value) return
  emit('call', {
    rule: call.value.rule,
    subject: call.value.subject,
    severity: severity.value,
    remedy: remedy.value,
  })
  chosen.value = undefined
  severity.value = undefined
}
</script>

<template>
  <form v-if="faults.length" class="call" @submit.prevent="make">
    <USelectMenu
      v-model="chosen"
      class="which"
      value-key="value"
      placeholder="Call a fault here"
      aria-label="fault"
      :items="faults"
    />
    <template v-if="rule">
      <div class="weights" role="group" aria-label="how severe">
        <UButton
          v-for="s in SEVERITIES"
          :key="s"
          type="button"
          color="neutral"
          variant="outline"
          class="chip"
          :aria-pressed="severity === s"
          @click="severity = s"
          >{{ s }}</UButton
        >
      </div>
      <USelect
        v-if="remedies.length"
        v-model="remedy"
        class="which"
        placeholder="Remedy"
        aria-label="remedy"
        :items="remedies"
      />
      <UButton
        type="submit"
        color="primary"
        icon="lucide:flag"
        label="Call it"
        :disabled="!severity"
      />
    </template>
  </form>
</template>

<style scoped>
.call,
.weights {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: center;
}
.which {
  width: min(24rem, 100%);
}
</style>
