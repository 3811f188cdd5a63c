<script lang="ts">
export interface AppShellProps {
  title: string
  subtitle?: string
  /** What waits in the margin, said on the phone's button. */
  marginNote?: string
  /** Nothing to say in the margin: the drawing has the whole width. */
  wide?: boolean
}
</script>

<script setup lang="ts">
import { useEventListener } from '@vueuse/core'

const { title, subtitle = '', marginNote = '', wide = false } = defineProps<AppShellProps>()
const slots = useSlots()
const job = useJobStore()
const instruments = useInstrumentStore()
const router = useRouter()
const colorMode = useColorMode()
const isMarginOpen = defineModel<boolean>('margin', { default: false })
const isSheetOpen = ref(false)

const { ofJob, beside, jobs, all } = usePlaces()
/** Four places fit under a thumb; the rest stand behind the last button. */
const FOUR = 4
const inHand = computed(() => (ofJob.value.length ? ofJob.value.slice(0, FOUR) : beside.value))
const isMoreOpen = ref(false)
const isFindOpen = ref(false)
const rest = computed(() => [...ofJob.value.slice(FOUR), ...beside.value, jobs])
const route = useRoute()
const isAt = (to: string) => route.path === to || (to !== '/' && route.path.startsWith(`${to}/`))
watch(
  () => route.fullPath,
  () => {
    isMoreOpen.value = false
  },
)
const isTyping = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName) || target.isContentEditable)
let isGoing = false
useEventListener(window, 'keydown', (event: KeyboardEvent) => {
  const low = event.key.toLowerCase()
  if ((event.ctrlKey || event.metaKey) && (low === 'z' || low === 'y') && !isTyping(event.target)) {
    event.preventDefault()
    if (low === 'y' || event.shiftKey) job.redo()
    else job.undo()
    return
  }
  if ((event.ctrlKey || event.metaKey) && low === 'k') {
    event.preventDefault()
    isFindOpen.value = !isFindOpen.value
    return
  }
  if (isTyping(event.target) || event.ctrlKey || event.metaKey || event.altKey) return
  if (event.key === '?') isSheetOpen.value = !isSheetOpen.value
  else if (isGoing) {
    isGoing = false
    const place = all.value.find(p => p.key === low)
    if (place) void router.push(place.to)
  } else if (low === 'g') isGoing = true
})
const device = useDeviceStore()
const skewWords = computed(() => {
  const minutes = Math.round(Math.abs(device.skewSeconds ?? 0) / 60)
  return minutes < 120 ? `${minutes} minutes` : `${Math.round(minutes / 60)} hours`
})
const isDark = computed(() => colorMode.value === 'dark')
</script>

<template>
  <div class="shell" :class="{ 'with-margin': slots.margin && !wide }">
    <nav class="rail no-print" aria-label="places">
      <NuxtLink to="/" class="mark">corvit</NuxtLink>
      <NuxtLink
        v-for="p in ofJob"
        :key="p.to"
        :to="p.to"
        class="place"
        :aria-current="isAt(p.to) ? 'page' : undefined"
        ><UIcon :name="p.icon" />{{ p.name
        }}<span v-if="p.count" class="count">{{ p.count }}</span></NuxtLink
      >
      <hr v-if="ofJob.length" class="parts" />
      <NuxtLink
        v-for="p in beside"
        :key="p.to"
        :to="p.to"
        class="place"
        :aria-current="isAt(p.to) ? 'page' : undefined"
        ><UIcon :name="p.icon" />{{ p.name }}</NuxtLink
      >
      <span class="grow" />
      <UButton
        color="neutral"
        variant="ghost"
        class="place bare"
        aria-label="find a place, a thing or a rule"
        @click="isFindOpen = true"
      >
        <UIcon name="lucide:search" />Find <span class="keyed">Ctrl K</span>
      </UButton>
      <NuxtLink :to="jobs.to" class="place"><UIcon :name="jobs.icon" />{{ jobs.name }}</NuxtLink>
    </nav>
    <nav class="bar no-print" aria-label="places, in hand">
      <NuxtLink
        v-for="p in inHand"
        :key="p.to"
        :to="p.to"
        class="place"
        :aria-current="isAt(p.to) ? 'page' : undefined"
        ><UIcon :name="p.icon" />{{ p.name
        }}<span v-if="p.count" class="count">{{ p.count }}</span></NuxtLink
      >
      <UButton
        color="neutral"
        variant="ghost"
        class="place bare"
        :aria-expanded="isMoreOpen"
        @click="isMoreOpen = true"
      >
        <UIcon name="lucide:ellipsis" />More
      </UButton>
    </nav>
    <USlideover v-model:open="isMoreOpen" side="bottom" title="More" description="Places and tools">
      <template #body>
        <nav class="rest" aria-label="more places">
          <UButton
            v-for="p in rest"
            :key="p.to"
            :to="p.to"
            :icon="p.icon"
            :label="p.name"
            color="neutral"
            variant="outline"
            size="xl"
            block
          />
          <UButton
            icon="lucide:search"
            label="Find"
            color="neutral"
            variant="outline"
            size="xl"
            block
            @click="((isMoreOpen = false), (isFindOpen = true))"
          />
          <UButton
            :icon="isDark ? 'lucide:sun' : 'lucide:moon'"
            :label="isDark ? 'Light' : 'Dark'"
            color="neutral"
            variant="outline"
            size="xl"
            block
            @click="colorMode.preference = isDark ? 'light' : 'dark'"
          />
        </nav>
      </template>
    </USlideover>
    <FindAnything v-model="isFindOpen" />
    <InstrumentTray v-if="job.jobId" />
    <main class="main">
      <header class="top">
        <div class="names">
          <h1>{{ title }}</h1>
          <p v-if="subtitle" class="soft small">{{ subtitle }}</p>
        </div>
        <div class="tools no-print">
          <slot name="tools" />
          <NuxtLink v-if="job.conflicts.length" :to="`/jobs/${job.jobId}/opinions`" class="differs"
            >{{ job.conflicts.length }} seen differently</NuxtLink
          >
          <UButton
            v-if="job.jobId"
            color="neutral"
            variant="ghost"
            class="tool bare"
            aria-label="Undo"
            :disabled="!job.canUndo"
            @click="job.undo()"
          >
            <UIcon name="lucide:undo-2" />
          </UButton>
          <UButton
            v-if="job.jobId"
            color="neutral"
            variant="ghost"
            class="tool bare"
            aria-label="Redo"
            :disabled="!job.canRedo"
            @click="job.redo()"
          >
            <UIcon name="lucide:redo-2" />
          </UButton>
          <UButton
            v-if="job.jobId"
            color="neutral"
            variant="ghost"
            class="tool bare"
            aria-label="Instruments"
            :aria-pressed="instruments.connected.length > 0"
            @click="instruments.isTrayOpen = true"
          >
            <UIcon name="lucide:gauge" />
          </UButton>
          <UButton
            color="neutral"
            variant="ghost"
            class="tool bare"
            :aria-label="isDark ? 'light' : 'dark'"
            @click="colorMode.preference = isDark ? 'light' : 'dark'"
          >
            <UIcon :name="isDark ? 'lucide:sun' : 'lucide:moon'" />
          </UButton>
          <UButton
            color="neutral"
            variant="ghost"
            class="tool desk bare"
            aria-label="keys"
            @click="isSheetOpen = true"
          >
            <UIcon name="lucide:keyboard" />
          </UButton>
          <SaveDot v-if="job.jobId" />
        </div>
      </header>
      <UAlert
        v-if="device.skewSeconds !== null"
        class="no-print mb-3"
        color="warning"
        variant="subtle"
        icon="lucide:triangle-alert"
        :title="`The clock of this device is ${skewWords} ${device.skewSeconds > 0 ? 'ahead' : 'behind'}`"
        description="The order of what is recorded is kept all the same; times are those of this clock. Set it right."
        close
        @update:open="device.skewSeconds = null"
      />
      <slot />
    </main>
    <!-- With nothing to press in it, the keyboard could not scroll it. -->
    <aside
      v-if="slots.margin && !wide"
      tabindex="0"
      class="aside no-print"
      :class="{ open: isMarginOpen }"
      aria-label="judgment"
    >
      <UButton
        color="neutral"
        variant="ghost"
        class="grip bare"
        @click="isMarginOpen = !isMarginOpen"
      >
        <span>{{ isMarginOpen ? 'Back to the drawing' : marginNote }}</span><UIcon
          :name="isMarginOpen ? 'lucide:chevron-down' : 'lucide:panel-right'"
        />
      </UButton>
      <div class="scroll"><slot name="margin" /></div>
    </aside>
    <ShortcutSheet v-model="isSheetOpen" />
  </div>
</template>

<style scoped>
.shell {
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr);
  min-height: 100dvh;
}
.shell.with-margin {
  grid-template-columns: 92px minmax(0, 1fr) 424px;
}
.rail {
  background: var(--tint);
  border-right: 1px solid var(--line);
  display: flex;
  flex-direction: column;
  position: sticky;
  top: 0;
  height: 100dvh;
  padding: 1.3rem 0 1rem;
}
.mark {
  font-weight: 700;
  font-size: 1.15rem;
  text-align: center;
  margin-bottom: 1.1rem;
  letter-spacing: 0.01em;
}
.place {
  min-height: 58px;
  width: 100%;
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  gap: 0.15rem;
  position: relative;
  font-weight: 600;
  font-size: 0.85rem;
  color: var(--soft);
  border-radius: 0;
  border-left: 4px solid transparent;
  padding-right: 4px;
}
.place > :first-child {
  font-size: 1.3rem;
}
.keyed {
  font-weight: 400;
  font-size: 0.7rem;
}
.place:hover {
  color: var(--touch);
}
.place[aria-current='page'] {
  background: var(--paper);
  color: var(--ink);
  border-left-color: var(--touch);
}
.count {
  position: absolute;
  top: 5px;
  right: 12px;
  font-size: 0.72rem;
  color: var(--touch);
  font-weight: 700;
}
.parts {
  border: 0;
  border-top: 1px solid var(--line);
  margin: 0.6rem 1.1rem;
}
.bar {
  display: none;
}
.rest {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 0.6rem;
}
.grow {
  flex: 1;
}
.main {
  padding: 1.1rem 1.6rem 2rem;
  min-width: 0;
}
.top {
  display: flex;
  justify-content: space-between;
  align-items: flex-start;
  gap: 1rem;
  margin-bottom: 0.9rem;
}
.tools {
  display: flex;
  align-items: center;
  gap: 0.15rem;
  flex: none;
}
.differs {
  color: var(--repair);
  font-weight: 600;
  font-size: 0.85rem;
  min-height: 44px;
  display: inline-flex;
  align-items: center;
  padding: 0 0.5rem;
}
.tool {
  width: 40px;
  height: 44px;
  display: grid;
  place-items: center;
  cursor: pointer;
  border-radius: 4px;
  color: var(--soft);
  font-size: 1.15rem;
}
.tool:hover:not(:disabled) {
  color: var(--touch);
}
.tool:disabled {
  opacity: 0.35;
  cursor: default;
}
.tools :deep(.dot) {
  margin-left: 0.6rem;
}
.aside {
  border-left: 1px solid var(--line);
  position: sticky;
  top: 0;
  height: 100dvh;
  overflow-y: auto;
}
.scroll {
  padding: 1.3rem 1.3rem 2.5rem;
}
.grip {
  display: none;
}
@media (max-width: 1100px) {
  .shell.with-margin {
    grid-template-columns: 92px minmax(0, 1fr) 360px;
  }
}
@media (max-width: 900px) {
  .shell,
  .shell.with-margin {
    display: block;
    padding-bottom: 58px;
  }
  .shell.with-margin {
    padding-bottom: 116px;
  }
  .rail {
    display: none;
  }
  .bar {
    position: fixed;
    inset: auto 0 0 0;
    height: 58px;
    display: flex;
    background: var(--tint);
    border-top: 1px solid var(--line);
    z-index: 30;
  }
  .bar .place {
    flex: 1 1 0;
    width: auto;
    border-left: 0;
    border-top: 4px solid transparent;
    font-size: 0.78rem;
    padding: 0;
  }
  .bar .place[aria-current='page'] {
    border-top-color: var(--touch);
  }
  .main {
    padding: 0.8rem 0.9rem 1rem;
  }
  .top {
    gap: 0.2rem 0.4rem;
    margin-bottom: 0.5rem;
  }
  .names {
    flex: 1 1 0;
    min-width: 0;
  }
  .names p {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .tool.desk {
    display: none;
  }
  .tools {
    margin-left: auto;
  }
  .aside {
    position: fixed;
    inset: auto 0 58px 0;
    height: 58px;
    z-index: 20;
    background: var(--paper);
    border-left: 0;
    border-top: 1px solid var(--line);
    overflow: hidden;
  }
  .aside.open {
    inset: 0 0 58px 0;
    height: auto;
    overflow-y: auto;
  }
  .grip {
    display: flex;
    justify-content: space-between;
    align-items: center;
    width: 100%;
    min-height: 58px;
    padding: 0 1rem;
    font-weight: 600;
    color: var(--touch);
    position: sticky;
    top: 0;
    background: var(--paper);
    z-index: 1;
    border-bottom: 1px solid var(--line);
  }
  .scroll {
    padding: 1rem 0.9rem 2rem;
  }
}
@media print {
  .shell,
  .shell.with-margin {
    display: block;
  }
  .main {
    padding: 0;
  }
}
</style>
