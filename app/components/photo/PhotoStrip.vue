<script lang="ts">
import type { Subject } from '#core'

export interface PhotoStripProps {
  /** The thing shown, and what belongs to it: photographs of any of them are listed. */
  subject: Subject
  things?: readonly Subject[]
}
</script>

<script setup lang="ts">
import { valueOf } from '#core'

const { subject, things = [] } = defineProps<PhotoStripProps>()
const job = useJobStore()
const device = useDeviceStore()
const pictures = useWaitingPictures()
const ids = computed(() => new Set([subject.id, ...things.map(t => t.id)]))
const photos = computed(() => job.site.all.photo.filter(p => ids.value.has(valueOf(p, 'of') ?? '')))
const open = ref('')
const busy = ref(false)
const problem = ref('')
const waiting = shallowRef<File>()
/** What has to be in the frame for the picture to prove anything. */
const PROMPTS: Partial<Record<Subject['kind'], readonly [frame: string, prompt: string]>> = {
  breaker: [
    'gauge, conductor and breaker rating together',
    'Gauge on the conductor and the number on the handle in one frame',
  ],
  segment: [
    'gauge, conductor and breaker rating together',
    'Gauge on the conductor and the number on the handle in one frame',
  ],
  circuit: ['nameplate', 'The whole nameplate, square on, no glare'],
  enclosure: ['the whole', 'Once the whole with its surroundings, once the label'],
  bar: ['damage close up', 'The screw and what lands under it, in focus'],
  feeder: ['label or marking', 'The print on the conductors and where they land'],
  outlet: ['marking after the work', 'The face with its label; the box open only when proved dead'],
  electrode: ['damage close up', 'The clamp, and the conductor up to where it disappears'],
  bond: ['damage close up', 'The clamp, and what it is clamped to'],
}
const prompt = computed(() => PROMPTS[subject.kind])

/** Judged by content, so that what the server would refuse is not taken in the first place. */
async function isPicture(file: File): Promise<boolean> {
  try {
    ;(await createImageBitmap(file)).close()
    return true
  } catch {
    return false
  }
}
/** Kept on this device first, with what is known of it; its name comes when the server has stored it. */
async function send(file: File) {
  problem.value = ''
  waiting.value = file
  busy.value = true
  const id = crypto.randomUUID()
  if (!(await isPicture(file))) {
    problem.value = 'This is not a photograph Corvit can keep: JPEG, PNG or WebP are'
    busy.value = false
    return
  }
  try {
    await device.holdPhoto({ id, job: job.jobId!, subject: id, picture: file, by: job.assessor })
    job.record([
      { act: 'add', subject: id, kind: 'photo', parent: 'premises' },
      { act: 'note', subject: id, field: 'of', value: subject.id, grade: 'seen' },
      {
        act: 'note',
        subject: id,
        field: 'takenAt',
        value: new Date().toISOString(),
        grade: 'measured',
      },
      ...(prompt.value
        ? [
            {
              act: 'note' as const,
              subject: id,
              field: 'shows',
              value: prompt.value[0],
              grade: 'seen' as const,
            },
          ]
        : []),
    ])
    waiting.value = undefined
    await device.flush()
  } catch {
    problem.value =
      `This device cannot keep the photograph (${device.storageProblem || 'no room'}). ` +
      'What is recorded is safe.'
  } finally {
    busy.value = false
  }
}
function pick(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (file) void send(file)
}
/** From the server, or from this device while the server has not got it; nothing where another device still has it. */
function url(photo: Subject<'photo'>): string | undefined {
  const hash = valueOf(photo, 'hash')
  return hash ? `/api/jobs/${job.jobId}/photos/${hash}?size=thumb` : pictures.urlOf(photo.id)
}
const refusedPhoto = computed(() =>
  device.photos.find(p => p.state === 'refused' && photos.value.some(x => x.id === p.subject)),
)
</script>

<template>
  <section class="strip" data-testid="photos">
    <div class="row">
      <button
        v-for="p in photos"
        :key="p.id"
        type="button"
        class="thumb"
        :aria-label="valueOf(p, 'caption') ?? 'photograph'"
        @click="open = p.id"
      >
        <img
          v-if="url(p)"
          :src="url(p)"
          :alt="valueOf(p, 'caption') ?? valueOf(p, 'shows') ?? 'photograph'"
          loading="lazy"
        />
        <span v-else class="small soft">on another device</span>
      </button>
      <label class="add" :class="{ busy }"
        ><UIcon :name="busy ? 'lucide:loader-circle' : 'lucide:camera'" class="icon" /><span
          class="small"
          >{{ busy ? 'storing' : 'photograph' }}</span
        ><input
          type="file"
          accept="image/jpeg,image/png,image/webp"
          capture="environment"
          class="sr-only"
          :disabled="busy"
          @change="pick"
      /></label>
    </div>
    <p v-if="prompt" class="small soft">In the frame: {{ prompt[1] }}</p>
    <p v-if="refusedPhoto" role="alert" class="small why">
      A photograph was not taken: {{ refusedPhoto.problem }}
    </p>
    <p v-if="problem" role="alert" class="small why">
      {{ problem }}
      <button v-if="waiting" type="button" class="touch" @click="send(waiting)">send again</button>
    </p>
    <PhotoView
      v-if="open && job.site.get(open, 'photo')"
      :photo="job.site.get(open, 'photo')!"
      @close="open = ''"
    />
  </section>
</template>

<style scoped>
.strip {
  display: grid;
  gap: 0.35rem;
  padding: 0.5rem 0;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
}
.thumb {
  width: 92px;
  height: 70px;
  overflow: hidden;
  border: 1px solid var(--line);
  border-radius: 4px;
  cursor: pointer;
  background: var(--tint);
}
.thumb:hover {
  border-color: var(--touch);
}
.thumb img {
  width: 100%;
  height: 100%;
  object-fit: cover;
}
.add {
  width: 92px;
  height: 70px;
  border: 1.5px dashed var(--line);
  border-radius: 4px;
  display: grid;
  place-items: center;
  align-content: center;
  gap: 0.15rem;
  cursor: pointer;
  color: var(--touch);
  font-weight: 600;
}
.add:hover {
  border-color: var(--touch);
}
.add:focus-within {
  outline: 2px solid var(--touch);
}
.icon {
  font-size: 1.3rem;
}
.busy {
  opacity: 0.6;
}
.why {
  color: var(--repair);
}
</style>
