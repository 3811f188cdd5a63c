<script setup lang="ts">
import { PREMISES_ID, valueOf } from '#core'
import { TEMPLATES, type Template } from '~/utils/templates'

const emit = defineEmits<{ made: [id: string] }>()
const job = useJobStore()
const isFirst = computed(() => job.site.all.enclosure.length === 0)
const form = reactive({
  name: 'Service panel',
  type: 'panel' as 'panel' | 'disconnect' | 'meter',
  place: 'indoors' as 'indoors' | 'outdoors',
  spaces: 24,
  main: 'main breaker' as string,
  mainAmps: 200,
  bus: 'single phase' as string,
  from: 'utility',
  building: 'main',
  newBuilding: '',
})
onMounted(() => {
  if (!isFirst.value) Object.assign(form, { name: 'Sub-panel', main: 'main lugs', from: 'unknown' })
})
const bars = ref<readonly string[]>(['neutral', 'ground'])
const template = ref('')
function take(t: Template) {
  template.value = t.id
  const f = t.facts
  Object.assign(form, {
    type: f.type,
    place: f.place,
    ...(f.spaces && { spaces: f.spaces }),
    ...(f.mainKind && { main: f.mainKind }),
    ...(f.mainAmps && { mainAmps: f.mainAmps }),
    ...(f.bus && { bus: f.bus }),
  })
  bars.value = t.bars
  if (/^(Service panel|Sub-panel|Meter|Outside disconnect)$/.test(form.name))
    form.name =
      f.type === 'meter'
        ? 'Meter'
        : f.type === 'disconnect'
          ? 'Outside disconnect'
          : isFirst.value
            ? 'Service panel'
            : 'Sub-panel'
}
const buildings = computed(() => [
  { value: 'main', label: 'the main building' },
  ...job.site.all.building.map(b => ({ value: b.id, label: valueOf(b, 'name') ?? b.id })),
  { value: 'new', label: 'another, detached building' },
])
const feeds = computed(() => [
  { value: 'utility', label: 'the utility' },
  ...sources.value.map(s => ({ value: s.id, label: s.label })),
  { value: 'unknown', label: 'not found yet' },
])
const sources = computed(() => [
  ...job.site.all.breaker
    .filter(b => valueOf(b, 'role') === 'feeder')
    .map(b => ({
      id: b.id,
      label: `breaker in space ${valueOf(b, 'space') ?? '?'} ${valueOf(b, 'label') ?? ''}`,
    })),
  ...job.site.all.enclosure.map(e => ({
    id: e.id,
    label: `lugs of ${valueOf(e, 'name') ?? e.id}`,
  })),
])
function make() {
  const id = crypto.randomUUID()
  const feeder = crypto.randomUUID()
  const facts: Record<string, string | number> = {
    name: form.name.trim() || 'Panel',
    type: form.type,
    place: form.place,
  }
  if (form.type === 'panel')
    Object.assign(facts, {
      spaces: form.spaces,
      bus: form.bus,
      numbering: 'odd left, even right',
      mainKind: form.main,
    })
  if (form.type === 'panel' ? form.main === 'main breaker' : form.type === 'disconnect')
    Object.assign(facts, { mainKind: 'main breaker', mainAmps: form.mainAmps })
  const drafts: Parameters<typeof job.record>[0][number][] = []
  let parent = form.building === 'main' ? PREMISES_ID : form.building
  if (form.building === 'new') {
    parent = crypto.randomUUID()
    drafts.push(
      { act: 'add', subject: parent, kind: 'building', parent: PREMISES_ID },
      {
        act: 'note',
        subject: parent,
        field: 'name',
        value: form.newBuilding.trim() || 'Detached building',
        grade: 'seen',
      },
      { act: 'note', subject: parent, field: 'isDetached', value: true, grade: 'seen' },
    )
  }
  drafts.push({ act: 'add', subject: id, kind: 'enclosure', parent })
  if (form.from === 'utility') facts.fedFrom = 'utility'
  else if (form.from !== 'unknown') {
    const known = job.site.feedersFrom({ id: form.from } as never)[0]
    if (known) facts.fedFrom = known.id
    else {
      drafts.push(
        { act: 'add', subject: feeder, kind: 'feeder', parent: PREMISES_ID },
        { act: 'note', subject: feeder, field: 'from', value: form.from, grade: 'seen' },
      )
      facts.fedFrom = feeder
    }
  }
  for (const [field, value] of Object.entries(facts))
    drafts.push({ act: 'note', subject: id, field, value, grade: 'seen' })
  if (form.type === 'panel') {
    for (const role of bars.value) {
      const bar = crypto.randomUUID()
      drafts.push(
        { act: 'add', subject: bar, kind: 'bar', parent: id },
        { act: 'note', subject: bar, field: 'role', value: role, grade: 'seen' },
      )
    }
  }
  job.record(drafts)
  emit('made', id)
}
</script>

<template>
  <form class="new" @submit.prevent="make">
    <h2>{{ isFirst ? 'Draw the first enclosure' : 'Draw another enclosure' }}</h2>
    <p class="soft small">
      Start with what the utility feeds: the meter, an outside disconnect, or the panel itself.
      Everything can be corrected later.
    </p>
    <fieldset>
      <legend>Most like</legend>
      <div class="row templates">
        <UButton
          v-for="t in TEMPLATES"
          :key="t.id"
          color="neutral"
          variant="outline"
          class="chip"
          :aria-pressed="template === t.id"
          @click="take(t)"
        >
          <b>{{ t.name }}</b><span v-if="t.note" class="small soft">{{ t.note }}</span>
        </UButton>
      </div>
    </fieldset>
    <UButton v-if="template" color="primary" variant="solid" type="submit" class="go draw"
      >Add panel</UButton
    >
    <div class="labelled">
      Called<UInput v-model="form.name" class="field" maxlength="200" name="enclosureName" />
    </div>
    <fieldset>
      <legend>It is a</legend>
      <div class="row">
        <UButton
          v-for="t in ['panel', 'disconnect', 'meter'] as const"
          :key="t"
          color="neutral"
          variant="outline"
          class="chip"
          :aria-pressed="form.type === t"
          @click="form.type = t"
        >
          {{ t }}
        </UButton>
      </div>
    </fieldset>
    <fieldset>
      <legend>It stands</legend>
      <div class="row">
        <UButton
          v-for="t in ['indoors', 'outdoors'] as const"
          :key="t"
          color="neutral"
          variant="outline"
          class="chip"
          :aria-pressed="form.place === t"
          @click="form.place = t"
        >
          {{ t }}
        </UButton>
      </div>
    </fieldset>
    <template v-if="form.type === 'panel'">
      <fieldset>
        <legend>Spaces</legend>
        <div class="row">
          <UButton
            v-for="n in [4, 6, 8, 12, 16, 18, 20, 24, 30, 40, 42]"
            :key="n"
            color="neutral"
            variant="outline"
            class="chip"
            :aria-pressed="form.spaces === n"
            @click="form.spaces = n"
          >
            {{ n }}
          </UButton>
        </div>
      </fieldset>
      <fieldset>
        <legend>Main</legend>
        <div class="row">
          <UButton
            v-for="t in ['main breaker', 'main lugs', 'fused main', 'split bus']"
            :key="t"
            color="neutral"
            variant="outline"
            class="chip"
            :aria-pressed="form.main === t"
            @click="form.main = t"
          >
            {{ t }}
          </UButton>
        </div>
      </fieldset>
    </template>
    <fieldset
      v-if="form.type === 'disconnect' || (form.type === 'panel' && form.main === 'main breaker')"
    >
      <legend>Main rating</legend>
      <div class="row">
        <UButton
          v-for="n in [60, 100, 125, 150, 200]"
          :key="n"
          color="neutral"
          variant="outline"
          class="chip"
          :aria-pressed="form.mainAmps === n"
          @click="form.mainAmps = n"
        >
          {{ n }} A
        </UButton>
      </div>
    </fieldset>
    <div class="labelled">
      In
      <USelect v-model="form.building" class="field" aria-label="building" :items="buildings" />
    </div>
    <div v-if="form.building === 'new'" class="labelled">
      Its name<UInput v-model="form.newBuilding" class="field" maxlength="200" name="newBuilding" />
    </div>
    <div class="labelled">
      Fed from
      <USelect v-model="form.from" class="field" aria-label="fed from" :items="feeds" />
    </div>
    <UButton color="primary" variant="solid" type="submit" class="go">Add panel</UButton>
  </form>
</template>

<style scoped>
.new {
  display: grid;
  gap: 0.9rem;
  max-width: 34rem;
}
.row.templates {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(14.5rem, 1fr));
}
.templates .chip {
  flex-direction: column;
  gap: 0;
  min-height: 52px;
  line-height: 1.15;
  align-items: flex-start;
  text-align: left;
  padding-block: 0.4rem;
}
.templates .chip[aria-pressed='true'] .soft {
  color: inherit;
}
.draw {
  justify-self: start;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  margin-top: 0.25rem;
}
legend,
.labelled {
  font-weight: 600;
}
.labelled .field {
  font-weight: 400;
  margin-top: 0.25rem;
}
</style>
