<script setup lang="ts">
import {
  fieldOf,
  labelOf,
  valueOf,
  valueText,
  type AnyValue,
  type Conflict,
  type Opinion,
} from '#core'

const { job, problem, isLoading, load } = useOpenJob()
type Opinions = Conflict & { kind: 'opinions' }
type TakenOut = Conflict & { kind: 'taken out' }
const opinions = computed(() => job.conflicts.filter((c): c is Opinions => c.kind === 'opinions'))
const takenOut = computed(() => job.conflicts.filter((c): c is TakenOut => c.kind === 'taken out'))
const subjectOf = (id: string) => job.house.subjects.get(id)
function label(c: Opinions): string {
  const subject = subjectOf(c.subject)
  return subject ? labelOf(job.site, subject) : c.subject
}
const fieldFor = (c: Opinions) => fieldOf(subjectOf(c.subject)?.kind ?? 'premises', c.field)
function text(c: Opinions, value: AnyValue): string {
  const field = fieldFor(c)
  if (!field) return String(value)
  if (field.type !== 'ref' && field.type !== 'refs') return valueText(field, value)
  const name = (id: string) => {
    const subject = subjectOf(id)
    return subject ? labelOf(job.site, subject) : id
  }
  return Array.isArray(value)
    ? value.map(v => name(String(v))).join(', ') || 'none'
    : name(String(value))
}
const all = (c: Opinions): Opinion[] => [c.stands, ...c.rivals]
const when = (at: string) =>
  new Date(at).toLocaleString('en-US', { dateStyle: 'medium', timeStyle: 'short' })
const settle = (c: Opinions, o: Opinion) => job.note(c.subject, c.field, o.value, o.grade)
function bringBack(c: TakenOut) {
  job.record([{ act: 'retract', target: c.drop.id }])
}
</script>

<template>
  <AppShell title="Seen differently" :subtitle="valueOf(job.site.premises, 'name')" wide>
    <PageState :is-loading="isLoading" :problem="problem" @again="load">
      <p class="soft lead">
        Two people recorded different values without having seen each other's. The later one is used
        until somebody decides.
      </p>
      <p v-if="job.conflicts.length === 0" data-testid="no-conflicts">Nobody disagrees.</p>
      <ul class="list" data-testid="conflicts">
        <li v-for="c in opinions" :key="`${c.subject} ${c.field}`">
          <h2>{{ label(c) }} · {{ fieldFor(c)?.label ?? c.field }}</h2>
          <div v-for="(o, i) in all(c)" :key="o.observation" class="opinion">
            <span class="grow"
              ><b class="value">{{ text(c, o.value) }}</b
              ><span class="small soft block"
                >{{ job.whoOf(o.observation, o.by) }}, {{ when(o.at) }}, {{ o.grade
                }}<template v-if="i === 0"> · used now</template></span
              ></span
            >
            <UButton size="lg" color="neutral" variant="outline" @click="settle(c, o)"
              >This is right</UButton
            >
          </div>
        </li>
        <li v-for="c in takenOut" :key="c.drop.id">
          <h2>
            Taken out by {{ job.whoOf(c.drop.id, c.drop.by) }}, recorded on by
            {{ job.whoOf(c.later[0]!.id, c.later[0]!.by) }}
          </h2>
          <div class="opinion">
            <span class="grow small soft"
              >{{ c.later.length }} observations made later by somebody who had not seen that it was
              taken out.</span
            >
            <UButton size="lg" color="neutral" variant="outline" @click="bringBack(c)"
              >Bring it back</UButton
            >
          </div>
        </li>
      </ul>
    </PageState>
  </AppShell>
</template>

<style scoped>
.lead {
  max-width: 42rem;
}
.list {
  max-width: 46rem;
  margin-top: 1rem;
  display: grid;
  gap: 1.4rem;
}
.opinion {
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem;
  align-items: center;
  border-bottom: 1px solid var(--line);
  padding: 0.5rem 0;
}
.grow {
  flex: 1 1 14rem;
}
.value {
  font-size: 1.2rem;
}
</style>
