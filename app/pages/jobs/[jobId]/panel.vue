<script setup lang="ts">
import { useEventListener, useMediaQuery } from '@vueuse/core'
import { VueDraggable } from 'vue-draggable-plus'
import { labelOf, overlapsIn, PREMISES_ID, valueOf, type Line, type Subject } from '#core'

const { job, problem, isLoading, load } = useOpenJob()
const { markOf } = useMarks()
const { keepLine } = useRecorder()
const route = useRoute()
const router = useRouter()
const line = useTemplateRef('line')
const isNarrow = useMediaQuery('(max-width: 900px)')
const isMarginOpen = ref(false)
const isDrawing = ref(false)
const selectedId = ref('')
const selectedSpace = ref<number>()

const { ordered: enclosures, copy, rename, reorder, remove } = useEnclosures()
const tabs = computed({ get: () => enclosures.value, set: list => reorder(list.map(e => e.id)) })
const isNaming = ref(false)
const newName = ref('')
const toast = useToast()
const takenBack = (title: string) =>
  toast.add({ title, actions: [{ label: 'Undo', onClick: () => job.undo() }] })
const acts = computed(() => [
  [
    { label: 'Rename', icon: 'lucide:pencil', onSelect: startNaming },
    {
      label: 'Draw another like it',
      icon: 'lucide:copy',
      onSelect: () => {
        if (enclosure.value) show(copy(enclosure.value))
      },
    },
    { label: 'Remove it', icon: 'lucide:trash-2', onSelect: takeOut },
  ],
])
function startNaming() {
  newName.value = valueOf(enclosure.value, 'name') ?? ''
  // The menu gives the focus back to its button as it closes; the field comes after that.
  window.setTimeout(() => {
    isNaming.value = true
  }, 200)
}
function takeOut() {
  if (!enclosure.value) return
  const name = valueOf(enclosure.value, 'name') ?? 'Enclosure'
  remove(enclosure.value)
  show('')
  takenBack(`${name} removed`)
}
function keepName() {
  if (enclosure.value) rename(enclosure.value, newName.value)
  isNaming.value = false
}
const enclosure = computed(
  () =>
    job.site.get(String(route.query.at ?? ''), 'enclosure') ??
    job.site.all.enclosure.find(e => valueOf(e, 'type') === 'panel') ??
    job.site.all.enclosure[0],
)
const selected = computed(() => job.house.subjects.get(selectedId.value))
const isPanel = computed(
  () =>
    enclosure.value &&
    valueOf(enclosure.value, 'type') !== 'meter' &&
    valueOf(enclosure.value, 'type') !== 'disconnect',
)
const selectedBreaker = computed(() =>
  selected.value?.kind === 'breaker' ? (selected.value as Subject<'breaker'>) : undefined,
)
const lineSpace = computed(() => selectedSpace.value ?? valueOf(selectedBreaker.value, 'space'))
/** What hangs in this enclosure, for the margin of the whole. */
const within = computed(
  () =>
    new Set(
      enclosure.value
        ? [
            enclosure.value,
            ...job.site.children(enclosure.value, 'bar'),
            ...job.site.children(enclosure.value, 'breaker'),
          ]
            .flatMap(s => belongings(job.site, s))
            .map(s => s.id)
        : [],
    ),
)
const hereFaults = computed(() => job.findings.filter(r => within.value.has(r.subject.id)).length)
const hereLooks = computed(
  () =>
    new Set(
      [...job.results.values()]
        .filter(r => within.value.has(r.subject.id))
        .flatMap(r => r.missing.map(m => `${m.subject} ${m.field}`)),
    ).size,
)
const overlaps = computed(() => (enclosure.value ? overlapsIn(job.site, enclosure.value) : []))
const shortLabel = (b: Subject<'breaker'>) => labelOf(job.site, b).replace(/^.*?, (?=space )/, '')
const known = computed(
  () =>
    [...job.results.values()].filter(
      r => within.value.has(r.subject.id) && r.outcome !== 'undecided',
    ).length,
)
const judged = computed(
  () => [...job.results.values()].filter(r => within.value.has(r.subject.id)).length,
)

function select(id: string) {
  const subject = job.house.subjects.get(id)
  selectedSpace.value = undefined
  // A finding about a circuit or conductor is shown on its breaker.
  if (subject && ['circuit', 'segment', 'screw', 'feeder', 'exposure'].includes(subject.kind)) {
    const owner = [...job.site.all.breaker, ...job.site.all.bar, ...job.site.all.enclosure].find(
      b => belongings(job.site, b as Subject).some(s => s.id === id),
    )
    selectedId.value = owner?.id ?? id
  } else selectedId.value = id
  if (id && isNarrow.value) isMarginOpen.value = true
}
function selectSpace(space: number) {
  selectedId.value = ''
  selectedSpace.value = space
  line.value?.focus()
}
function keep(parsed: Line) {
  if (!enclosure.value) return
  const withSpace =
    parsed.space === undefined && selectedSpace.value !== undefined
      ? { ...parsed, space: selectedSpace.value }
      : parsed
  const id = keepLine(enclosure.value, withSpace, selectedBreaker.value)
  if (!id) return
  const space = withSpace.space ?? lineSpace.value
  const wasNew = selectedBreaker.value?.id !== id
  const next = wasNew && space !== undefined ? nextEmpty(space) : undefined
  // The margin goes on speaking of what was just kept, while the line is ready for the next space.
  selectedSpace.value = next
  selectedId.value = id
  if (space !== undefined && !isNarrow.value) window.setTimeout(() => line.value?.focus(), 0)
}
/** What was said: the breaker it was said of is shown. */
function keepSaid(things: readonly string[]) {
  const breaker = things.find(id => job.site.get(id, 'breaker'))
  if (!breaker) return
  selectedSpace.value = undefined
  selectedId.value = breaker
}
/** The next space nothing is recorded in, in the order of the numbers; so that a panel is entered line after line. */
function nextEmpty(after: number): number | undefined {
  if (!enclosure.value) return undefined
  const step = valueOf(enclosure.value, 'numbering') === 'down each side' ? 1 : 2
  const taken = new Set(
    job.site.children(enclosure.value, 'breaker').flatMap(b => {
      const space = valueOf(b, 'space')
      return space === undefined
        ? []
        : Array.from({ length: valueOf(b, 'poles') ?? 1 }, (_, i) => space + i * step)
    }),
  )
  for (let space = after + 1; space <= (valueOf(enclosure.value, 'spaces') ?? 0); space++)
    if (!taken.has(space)) return space
  return undefined
}
function walk(step: number, across: boolean) {
  if (!enclosure.value) return
  const spaces = valueOf(enclosure.value, 'spaces') ?? 24
  const at = lineSpace.value ?? 0
  const next = across ? (at % 2 === 1 ? at + 1 : at - 1) : at === 0 ? 1 : at + step * 2
  if (next < 1 || next > spaces) return
  const there = job.site.children(enclosure.value, 'breaker').find(b => {
    const space = valueOf(b, 'space')
    return (
      space !== undefined &&
      (space === next || ((valueOf(b, 'poles') ?? 1) === 2 && space + 2 === next && step < 0))
    )
  })
  if (there) {
    selectedSpace.value = undefined
    selectedId.value = there.id
  } else {
    selectedId.value = ''
    selectedSpace.value = next
  }
}
useEventListener(window, 'keydown', (event: KeyboardEvent) => {
  const isTyping =
    event.target instanceof HTMLElement &&
    ['INPUT', 'TEXTAREA', 'SELECT'].includes(event.target.tagName)
  if (event.key === '/' && !isTyping) {
    event.preventDefault()
    line.value?.focus()
  } else if (!isTyping && event.key.startsWith('Arrow')) {
    event.preventDefault()
    walk(event.key === 'ArrowUp' ? -1 : 1, event.key === 'ArrowLeft' || event.key === 'ArrowRight')
  } else if (!isTyping && event.key === 'Escape') {
    selectedId.value = ''
    selectedSpace.value = undefined
  }
})
function show(id: string) {
  isDrawing.value = false
  selectedId.value = ''
  selectedSpace.value = undefined
  void router.replace({ query: { at: id } })
}
const subtitle = computed(() => {
  const p = job.site.premises
  return [
    valueOf(p, 'street'),
    valueOf(p, 'yearBuilt') && `built ${valueOf(p, 'yearBuilt')}`,
    `${job.site.edition} code in force`,
  ]
    .filter(Boolean)
    .join(' · ')
})
</script>

<template>
  <AppShell
    v-model:margin="isMarginOpen"
    :title="valueOf(job.site.premises, 'name') ?? 'Job'"
    :subtitle="subtitle"
    :margin-note="
      selected
        ? labelOf(job.site, selected)
        : enclosure
          ? `${hereFaults} found · ${hereLooks} to look at`
          : 'nothing recorded yet'
    "
  >
    <template #tools>
      <UButton
        color="primary"
        variant="link"
        class="about touch"
        aria-label="about the job"
        @click="select(PREMISES_ID)"
      >
        <UIcon v-if="isNarrow" name="lucide:file-text" class="text-xl" /><template v-else
          >about the job</template
        >
      </UButton>
    </template>
    <PageState :is-loading="isLoading" :problem="problem" @again="load">
      <nav v-if="enclosures.length" class="tabs no-print" aria-label="enclosures">
        <VueDraggable
          v-model="tabs"
          class="drag"
          :animation="150"
          :delay="180"
          :delay-on-touch-only="true"
        >
          <UButton
            v-for="e in tabs"
            :key="e.id"
            color="neutral"
            variant="ghost"
            class="tab bare"
            :aria-current="e === enclosure && !isDrawing"
            @click="show(e.id)"
          >
            <SeverityMark v-if="markOf(e)" :kind="markOf(e)!" :size="13" />{{
              valueOf(e, 'name') ?? 'enclosure'
            }}
          </UButton>
        </VueDraggable>
        <UDropdownMenu v-if="enclosure && !isDrawing" :items="acts"
          ><UButton
            color="neutral"
            variant="ghost"
            class="tab more bare"
            aria-label="this enclosure: rename, copy, remove"
          >
            <UIcon name="lucide:ellipsis" /></UButton
        ></UDropdownMenu>
        <UButton
          color="neutral"
          variant="ghost"
          class="tab bare"
          :aria-current="isDrawing"
          @click="isDrawing = true"
        >
          <UIcon name="lucide:plus" /> another
        </UButton>
      </nav>
      <form v-if="isNaming" class="naming" @submit.prevent="keepName">
        <UInput
          v-model="newName"
          class="field"
          aria-label="name of the enclosure"
          maxlength="200"
          autofocus
        /><UButton color="neutral" variant="outline" type="submit" class="plain">Save</UButton>
      </form>
      <NewEnclosure v-if="isDrawing || !enclosure" @made="show" />
      <template v-else>
        <PanelFace
          v-if="isPanel"
          :enclosure="enclosure"
          :site="job.site"
          :mark-of="markOf"
          :selected="selectedSpace === undefined ? selectedId : `space ${selectedSpace}`"
          :compact="isNarrow"
          @select="select"
          @space="selectSpace"
        />
        <BoxFace
          v-else
          :enclosure="enclosure"
          :site="job.site"
          :mark="markOf(enclosure)"
          :selected="selectedId === enclosure.id"
          @select="select"
        />
        <p v-for="[a, b] in overlaps" :key="`${a.id}${b.id}`" class="overlap" role="alert">
          <UIcon name="lucide:triangle-alert" /> {{ shortLabel(a) }} and {{ shortLabel(b) }} are
          recorded in the same space.
          <UButton color="primary" variant="link" class="touch" @click="select(b.id)"
            >correct the second</UButton
          >
        </p>
        <div v-if="isNarrow && isPanel" class="bars">
          <UButton color="neutral" variant="outline" class="plain" @click="select(enclosure.id)">
            <SeverityMark v-if="markOf(enclosure)" :kind="markOf(enclosure)!" /> enclosure and bond
          </UButton>
          <UButton
            v-for="b in job.site.children(enclosure, 'bar')"
            :key="b.id"
            color="neutral"
            variant="outline"
            class="plain"
            @click="select(b.id)"
          >
            <SeverityMark v-if="markOf(b)" :kind="markOf(b)!" />
            {{ valueOf(b, 'role') ?? 'bar' }} bar
          </UButton>
        </div>
        <ShorthandLine
          v-if="isPanel"
          ref="line"
          :space="lineSpace"
          :place="enclosure.id"
          :selected="selectedBreaker?.id"
          @keep="keep"
          @said="keepSaid"
          @leave="selectedId = ''"
        />
      </template>
    </PageState>
    <template #margin>
      <div v-if="judged" class="progress">
        <p class="small soft">{{ known }} of {{ judged }} checks decided here</p>
        <div
          class="track"
          role="progressbar"
          aria-label="checks decided here"
          :aria-valuenow="known"
          :aria-valuemax="judged"
        >
          <i :style="{ width: `${(100 * known) / judged}%` }" />
        </div>
      </div>
      <JudgmentMargin v-if="enclosure" :subject="selected" :within="within" @pick="select" />
    </template>
  </AppShell>
</template>

<style scoped>
.about {
  min-height: 44px;
  padding: 0 0.6rem;
  white-space: nowrap;
}
.tabs {
  display: flex;
  flex-wrap: wrap;
  gap: 0 1.1rem;
  margin-bottom: 0.5rem;
}
@media (max-width: 900px) {
  .tabs {
    flex-wrap: nowrap;
    overflow-x: auto;
    scrollbar-width: none;
  }
}
.tab {
  min-height: 36px;
  display: inline-flex;
  align-items: center;
  gap: 0.4rem;
  white-space: nowrap;
  color: var(--soft);
  font-weight: 600;
  border-bottom: 3px solid transparent;
  cursor: pointer;
}
.tab:hover {
  color: var(--touch);
}
.tab[aria-current='true'] {
  color: var(--ink);
  border-bottom-color: var(--touch);
}
.drag {
  display: contents;
}
.naming {
  display: flex;
  gap: 0.5rem;
  margin-bottom: 0.5rem;
  max-width: 26rem;
}
.tab.more {
  min-width: 36px;
  justify-content: center;
}
.progress {
  margin-bottom: 1rem;
}
.track {
  height: 5px;
  background: var(--tint);
  margin-top: 0.3rem;
}
.track i {
  display: block;
  height: 100%;
  background: var(--cool);
}
.overlap {
  color: var(--repair);
  font-weight: 600;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.4rem;
  min-height: 40px;
}
.bars {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  margin-top: 0.6rem;
}
</style>
