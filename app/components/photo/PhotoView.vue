<script lang="ts">
import type { Subject } from '#core'

export interface PhotoViewProps {
  photo: Subject<'photo'>
}
export interface PhotoViewEmits {
  close: []
}
</script>

<script setup lang="ts">
import { FIELDS, labelOf, valueOf } from '#core'
import { PhotoMarks, type PhotoMark } from '#shared/api'

const { photo } = defineProps<PhotoViewProps>()
const emit = defineEmits<PhotoViewEmits>()
const job = useJobStore()
const pictures = useWaitingPictures()
const source = computed(() => {
  const hash = valueOf(photo, 'hash')
  return hash ? `/api/jobs/${job.jobId}/photos/${hash}` : pictures.urlOf(photo.id)
})
const isOpen = ref(true)
watch(isOpen, o => {
  if (!o) emit('close')
})
const tool = ref<PhotoMark['kind'] | ''>('')
const words = ref('')
const draft = ref<PhotoMark>()
const frame = useTemplateRef('frame')
const caption = ref(valueOf(photo, 'caption') ?? '')
const marks = computed<PhotoMark[]>(() => {
  try {
    const parsed = PhotoMarks.safeParse(JSON.parse(valueOf(photo, 'marks') ?? '[]'))
    return parsed.success ? parsed.data : []
  } catch {
    return []
  }
})
const ratio = computed(() => (valueOf(photo, 'widthPx') ?? 4) / (valueOf(photo, 'heightPx') ?? 3))
const W = 1000
const H = computed(() => W / ratio.value)
const of = computed(() => job.house.subjects.get(valueOf(photo, 'of') ?? ''))
const keep = (list: readonly PhotoMark[]) => job.note(photo.id, 'marks', JSON.stringify(list))
const round = (n: number) => Math.round(n * 1000) / 1000
function at(event: PointerEvent): { x: number; y: number } {
  const box = frame.value!.getBoundingClientRect()
  return {
    x: round((event.clientX - box.left) / box.width),
    y: round((event.clientY - box.top) / box.height),
  }
}
function down(event: PointerEvent) {
  if (tool.value === '') return
  const { x, y } = at(event)
  if (tool.value === 'text') {
    if (words.value.trim()) keep([...marks.value, { kind: 'text', x, y, text: words.value.trim() }])
    return
  }
  ;(event.target as Element).setPointerCapture?.(event.pointerId)
  draft.value =
    tool.value === 'arrow'
      ? { kind: 'arrow', x, y, x2: x, y2: y }
      : { kind: 'circle', x, y, r: 0.02 }
}
function move(event: PointerEvent) {
  if (!draft.value) return
  const { x, y } = at(event)
  const d = draft.value
  if (d.kind === 'arrow') draft.value = { ...d, x2: x, y2: y }
  else if (d.kind === 'circle')
    draft.value = { ...d, r: Math.max(0.02, round(Math.hypot(x - d.x, (y - d.y) / ratio.value))) }
}
function up() {
  if (draft.value) {
    const parsed = PhotoMarks.safeParse([...marks.value, draft.value])
    if (parsed.success) keep(parsed.data)
  }
  draft.value = undefined
}
const shown = computed(() => (draft.value ? [...marks.value, draft.value] : marks.value))
function arrowHead(m: Extract<PhotoMark, { kind: 'arrow' }>): string {
  const [x, y, x2, y2] = [m.x * W, m.y * H.value, m.x2 * W, m.y2 * H.value]
  const a = Math.atan2(y2 - y, x2 - x)
  const side = (turn: number) => `${x2 - 30 * Math.cos(a + turn)} ${y2 - 30 * Math.sin(a + turn)}`
  return `M${side(0.45)} L${x2} ${y2} L${side(-0.45)}`
}
function remove() {
  job.record([{ act: 'drop', subject: photo.id }])
  emit('close')
}
const TOOLS = [
  ['arrow', 'lucide:move-up-right'],
  ['circle', 'lucide:circle'],
  ['text', 'lucide:type'],
] as const
</script>

<template>
  <UModal
    v-model:open="isOpen"
    :title="of ? labelOf(job.site, of) : 'Photograph'"
    :description="valueOf(photo, 'shows') ?? 'what the frame holds is not said'"
    :ui="{ content: 'max-w-4xl' }"
  >
    <template #body>
      <div class="view" data-testid="photo-view">
        <div
          class="frame"
          :style="{ aspectRatio: ratio, width: `min(100%, calc(58dvh * ${ratio}))` }"
        >
          <img
            v-if="source"
            :src="source"
            :alt="valueOf(photo, 'caption') ?? 'photograph'"
            draggable="false"
          />
          <svg
            ref="frame"
            :viewBox="`0 0 ${W} ${H}`"
            :class="{ drawing: tool }"
            @pointerdown="down"
            @pointermove="move"
            @pointerup="up"
            @pointercancel="draft = undefined"
          >
            <g
              v-for="(m, i) in shown"
              :key="i"
              fill="none"
              stroke-linecap="round"
              stroke-linejoin="round"
            >
              <template
                v-for="pen in [
                  { c: '#fff', w: 13 },
                  { c: '#b0201c', w: 7 },
                ]"
                :key="pen.c"
              >
                <path
                  v-if="m.kind === 'arrow'"
                  :d="`M${m.x * W} ${m.y * H} L${m.x2 * W} ${m.y2 * H} ${arrowHead(m)}`"
                  :stroke="pen.c"
                  :stroke-width="pen.w"
                />
                <circle
                  v-else-if="m.kind === 'circle'"
                  :cx="m.x * W"
                  :cy="m.y * H"
                  :r="m.r * W"
                  :stroke="pen.c"
                  :stroke-width="pen.w"
                />
              </template>
              <text v-if="m.kind === 'text'" :x="m.x * W" :y="m.y * H" class="words">
                {{ m.text }}
              </text>
            </g>
          </svg>
        </div>
        <div class="tools">
          <UButton
            v-for="[name, icon] in TOOLS"
            :key="name"
            color="neutral"
            variant="outline"
            class="chip"
            :aria-pressed="tool === name"
            @click="tool = tool === name ? '' : name"
          >
            <UIcon :name="icon" /> {{ name }}
          </UButton>
          <UInput
            v-if="tool === 'text'"
            v-model="words"
            class="field words-in"
            placeholder="words, then touch the picture"
            aria-label="words to put on the picture"
            maxlength="80"
          />
          <UButton
            v-if="marks.length"
            color="primary"
            variant="link"
            class="touch"
            @click="keep(marks.slice(0, -1))"
          >
            take the last mark off
          </UButton>
        </div>
        <form class="tools" @submit.prevent="job.note(photo.id, 'caption', caption.trim())">
          <UInput
            v-model="caption"
            class="field cap"
            placeholder="caption"
            aria-label="caption"
            maxlength="200"
          /><UButton color="neutral" variant="outline" type="submit" class="plain">Save</UButton>
        </form>
        <div class="tools">
          <UButton
            v-for="o in FIELDS.photo.shows.options"
            :key="o"
            color="neutral"
            variant="outline"
            class="chip"
            :aria-pressed="valueOf(photo, 'shows') === o"
            @click="job.note(photo.id, 'shows', o)"
          >
            {{ o }}
          </UButton>
        </div>
        <p class="small soft">
          Taken {{ (valueOf(photo, 'takenAt') ?? '').slice(0, 16).replace('T', ' ') }} ·
          {{
            valueOf(photo, 'hash')
              ? `kept as ${valueOf(photo, 'hash')!.slice(0, 12)}`
              : 'not sent yet'
          }}
          <UButton color="primary" variant="link" class="touch" @click="remove"
            >take it out</UButton
          >
        </p>
      </div>
    </template>
  </UModal>
</template>

<style scoped>
.view {
  display: grid;
  gap: 0.7rem;
}
.frame {
  position: relative;
  margin: 0 auto;
  background: var(--tint);
}
.frame img,
.frame svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.frame svg.drawing {
  cursor: crosshair;
  touch-action: none;
}
.words {
  font-size: 38px;
  font-weight: 700;
  fill: #b0201c;
  paint-order: stroke;
  stroke: #fff;
  stroke-width: 9px;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  align-items: center;
}
.words-in,
.cap {
  flex: 1 1 14rem;
  width: auto;
}
.touch {
  min-height: 44px;
}
</style>
