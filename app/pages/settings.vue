<script setup lang="ts">
import { EDITIONS, REPORT_TITLES, REPORT_VOICES, RULES, SCHOOLS, type SchoolQuestion } from '#core'
import { DEFAULT_OWN, OwnSettings } from '#shared/files'

const toast = useToast()
const own = ref<OwnSettings>(structuredClone(DEFAULT_OWN))
const problem = ref('')
const isBusy = ref(false)
const letterhead = ref('')
const file = ref<File | null>(null)
const picture = ref<File | null>(null)

const voices = REPORT_VOICES.map(value => ({ value, label: REPORT_TITLES[value] }))
const editions = [
  { value: 0, label: 'ask every time' },
  ...EDITIONS.map(e => ({ value: e as number, label: String(e) })),
]
type RuleId = OwnSettings['amendments'][number]['rule']
const rules = RULES.map(r => ({ value: r.id as RuleId, label: r.fault }))
const itemsOf = (q: SchoolQuestion) => [
  { value: 'any', label: 'Whatever the aim says' },
  ...q.schools.map(w => ({ value: w.id, label: w.label })),
]
const wayOf = (q: SchoolQuestion) =>
  own.value.schools.find(id => q.schools.some(w => w.id === id)) ?? 'any'
function go(q: SchoolQuestion, id: string) {
  const others = own.value.schools.filter(s => !q.schools.some(w => w.id === s))
  own.value.schools = id === 'any' ? others : [...others, id]
}
const edition = computed({
  get: () => own.value.edition ?? 0,
  set: (e: number) => (own.value.edition = EDITIONS.find(x => x === e) ?? null),
})

function take(settings: OwnSettings) {
  own.value = settings
  letterhead.value = settings.letterhead.join('\n')
}
async function attempt(run: () => Promise<void>) {
  problem.value = ''
  isBusy.value = true
  try {
    await run()
  } catch (error) {
    problem.value = (error as Error).message
  } finally {
    isBusy.value = false
  }
}
const load = () => attempt(async () => take(await api('/api/me/settings', OwnSettings)))
onMounted(load)
const keep = () =>
  attempt(async () => {
    const lines = letterhead.value
      .split('\n')
      .map(l => l.trim())
      .filter(Boolean)
    const body = { ...own.value, letterhead: lines }
    take(await api('/api/me/settings', OwnSettings, { ...postJson(body), method: 'PUT' }))
    toast.add({ title: 'Kept', icon: 'lucide:check' })
  })

/** Settings as a file, for another device or another person. */
function exportFile() {
  const blob = new Blob([JSON.stringify({ corvit: 1, settings: own.value }, null, 1)], {
    type: 'application/json',
  })
  const link = document.createElement('a')
  link.href = URL.createObjectURL(blob)
  link.download = 'corvit-settings.json'
  link.click()
  URL.revokeObjectURL(link.href)
}
watch(file, chosen => {
  if (!chosen) return
  void attempt(async () => {
    let raw: unknown
    try {
      raw = JSON.parse(await chosen.text())
    } catch (error) {
      throw new Error(`${chosen.name} is not JSON: ${(error as Error).message}`)
    }
    const parsed = OwnSettings.safeParse((raw as { settings?: unknown } | null)?.settings)
    if (!parsed.success) {
      const [issue] = parsed.error.issues
      const where = issue?.path.length ? `settings.${issue.path.join('.')}` : 'settings'
      throw new Error(`${chosen.name}, ${where}: ${issue?.message}. Nothing was changed`)
    }
    take(parsed.data)
    toast.add({ title: 'Read. Keep them to use them.' })
  }).finally(() => {
    file.value = null
  })
})
watch(picture, chosen => {
  if (!chosen) return
  const reader = new FileReader()
  reader.onload = () => {
    own.value.signature = String(reader.result)
    picture.value = null
  }
  reader.readAsDataURL(chosen)
})
</script>

<template>
  <PlainShell
    title="Your settings"
    subtitle="What your reports are written with, and what your new jobs begin with."
  >
    <UAlert
      v-if="problem"
      color="error"
      variant="subtle"
      icon="lucide:triangle-alert"
      :title="problem"
      data-testid="settings-problem"
    />
    <form class="form" @submit.prevent="keep">
      <h2>Reports</h2>
      <div class="pair">
        <UFormField label="The report you open first">
          <USelect v-model="own.voice" :items="voices" class="w-full" size="lg" />
        </UFormField>
        <UFormField label="What is allowed to remain">
          <USelect
            v-model="own.allowedToRemain"
            :items="['mention', 'recommend upgrade']"
            class="w-full"
            size="lg"
          />
        </UFormField>
        <UFormField label="Aluminum remedies">
          <USelect
            v-model="own.aluminumSchool"
            :items="['strict', 'listed connectors']"
            class="w-full"
            size="lg"
          />
        </UFormField>
        <UFormField label="Temperatures">
          <USelect v-model="own.temperatures" :items="['°F', '°C']" class="w-full" size="lg" />
        </UFormField>
      </div>
      <USwitch v-model="own.citeSections" label="The inspector report cites sections" />
      <h2>Which way your desk goes</h2>
      <div class="pair">
        <UFormField v-for="q in SCHOOLS" :key="q.id" :label="q.title">
          <USelect
            :model-value="wayOf(q)"
            :items="itemsOf(q)"
            class="w-full"
            size="lg"
            @update:model-value="id => go(q, id)"
          />
        </UFormField>
      </div>
      <h2>Code where you work</h2>
      <UFormField label="Edition in force" help="New jobs begin with it.">
        <USelect v-model="edition" :items="editions" size="lg" class="w-48" />
      </UFormField>
      <p class="small soft">Years in which editions became law there:</p>
      <div v-for="(a, i) in own.adoptions" :key="i" class="row">
        <UInputNumber
          v-model="a.edition"
          :min="1897"
          :max="2100"
          :format-options="{ useGrouping: false }"
          aria-label="edition"
        />
        <span>law from</span>
        <UInputNumber
          v-model="a.year"
          :min="1897"
          :max="2100"
          :format-options="{ useGrouping: false }"
          aria-label="year it became law"
        />
        <UButton
          color="neutral"
          variant="ghost"
          icon="lucide:x"
          size="lg"
          aria-label="take this year out"
          @click="own.adoptions.splice(i, 1)"
        />
      </div>
      <UButton
        class="add"
        color="neutral"
        variant="outline"
        size="lg"
        icon="lucide:plus"
        label="Add a year"
        @click="own.adoptions.push({ edition: 2020, year: 2021 })"
      />
      <p class="small soft">Local amendments:</p>
      <div v-for="(a, i) in own.amendments" :key="i" class="amend">
        <USelectMenu
          v-model="a.rule"
          :items="rules"
          value-key="value"
          class="w-full"
          aria-label="rule that is amended"
        />
        <USelect
          v-model="a.effect"
          :items="['not enforced here', 'as in another edition']"
          aria-label="what the local law says"
        />
        <USelect
          v-if="a.effect === 'as in another edition'"
          v-model="a.asIn"
          :items="[...EDITIONS]"
          aria-label="edition that holds"
        />
        <UInput v-model="a.source" placeholder="ordinance" aria-label="ordinance" />
        <UButton
          color="neutral"
          variant="ghost"
          icon="lucide:x"
          size="lg"
          aria-label="take this amendment out"
          @click="own.amendments.splice(i, 1)"
        />
      </div>
      <UButton
        class="add"
        color="neutral"
        variant="outline"
        size="lg"
        icon="lucide:plus"
        label="Add an amendment"
        @click="
          own.amendments.push({ rule: rules[0]!.value, effect: 'not enforced here', source: '' })
        "
      />
      <h2>Letterhead</h2>
      <UFormField label="Name, address, license" help="Up to six lines, at the head of each paper.">
        <UTextarea v-model="letterhead" :rows="4" class="w-full" />
      </UFormField>
      <div class="row">
        <img v-if="own.signature" :src="own.signature" alt="your signature" class="signature" />
        <UFileUpload
          v-slot="{ open: choose }"
          v-model="picture"
          accept="image/png,image/jpeg"
          :preview="false"
          aria-label="picture of your signature"
        >
          <UButton
            color="neutral"
            variant="outline"
            size="lg"
            icon="lucide:signature"
            label="Picture of your signature"
            @click="choose()"
          />
        </UFileUpload>
        <UButton
          v-if="own.signature"
          color="neutral"
          variant="ghost"
          size="lg"
          label="Take it out"
          @click="own.signature = ''"
        />
      </div>
      <h2>Phrases</h2>
      <p class="small soft">Wordings you use again, at hand when you word a finding.</p>
      <div v-for="(p, i) in own.phrases" :key="i" class="phrase">
        <UInput v-model="p.name" placeholder="name" aria-label="name of the phrase" />
        <UTextarea v-model="p.words" :rows="2" autoresize aria-label="wording" />
        <UButton
          color="neutral"
          variant="ghost"
          icon="lucide:x"
          size="lg"
          aria-label="take this phrase out"
          @click="own.phrases.splice(i, 1)"
        />
      </div>
      <UButton
        class="add"
        color="neutral"
        variant="outline"
        size="lg"
        icon="lucide:plus"
        label="Add a phrase"
        data-testid="add-phrase"
        @click="own.phrases.push({ name: '', words: '' })"
      />
      <div class="row keep">
        <UButton type="submit" size="xl" label="Keep" :loading="isBusy" />
        <UButton
          color="neutral"
          variant="outline"
          size="xl"
          icon="lucide:download"
          label="As a file"
          @click="exportFile"
        />
        <UFileUpload
          v-slot="{ open: choose }"
          v-model="file"
          accept="application/json,.json"
          :preview="false"
          aria-label="read settings from a file"
        >
          <UButton
            color="neutral"
            variant="outline"
            size="xl"
            icon="lucide:upload"
            label="Read a file"
            @click="choose()"
          />
        </UFileUpload>
      </div>
    </form>
  </PlainShell>
</template>

<style scoped>
.form {
  display: grid;
  gap: 0.9rem;
}
h2 {
  margin-top: 0.8rem;
}
.pair {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(14rem, 1fr));
  gap: 0.9rem;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: center;
}
.amend,
.phrase {
  display: grid;
  grid-template-columns: minmax(8rem, 1fr) minmax(0, 2fr) auto;
  gap: 0.5rem;
  align-items: start;
}
.amend {
  grid-template-columns: minmax(0, 2fr) auto minmax(0, 1fr) auto;
}
.add {
  justify-self: start;
}
.signature {
  max-height: 60px;
  background: #fff;
  border: 1px solid var(--line);
}
.keep {
  margin-top: 1rem;
}
@media (max-width: 700px) {
  .amend,
  .phrase {
    grid-template-columns: 1fr auto;
  }
}
</style>
