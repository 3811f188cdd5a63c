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
const { busy, problem, waiting, send } = usePhotoTaking()
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

const keep = (file: File) => send(file, { of: subject.id, frame: prompt.value?.[0] })
/** Facts a proving picture of this thing would raise, once there is one. */
const raises = computed(() =>
  photos.value.some(p => valueOf(p, 'shows') === PROVING_FRAME) ? raisedBy(subject, things) : [],
)
const raise = () =>
  job.record(
    raises.value.map(({ subject: id, field, value, grade }) => ({
      act: 'note' as const,
      subject: id,
      field,
      value,
      grade,
      instrument: 'photograph',
    })),
  )
function pick(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (file) void keep(file)
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
      <UButton
        v-for="p in photos"
        :key="p.id"
        color="neutral"
        variant="ghost"
        class="thumb bare"
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
      </UButton>
      <!-- The file picker of the library cannot ask for the camera. -->
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
    <p v-if="raises.length" class="small raise">
      The frame shows {{ raises.map(r => r.words).join(', ') }} itself.
      <UButton
        size="md"
        variant="outline"
        label="Count it as gauged and read"
        data-testid="raise"
        @click="raise"
      />
    </p>
    <p v-if="refusedPhoto" role="alert" class="small why">
      A photograph was not taken: {{ refusedPhoto.problem }}
    </p>
    <p v-if="problem" role="alert" class="small why">
      {{ problem }}
      <UButton v-if="waiting" color="primary" variant="link" class="touch" @click="keep(waiting)"
        >send again</UButton
      >
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
.raise {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: center;
}
.why {
  color: var(--repair);
}
</style>
