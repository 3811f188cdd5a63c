<script setup lang="ts">
import { FIELDS, valueOf, type Subject } from '#core'

/** Pictures taken before anybody said what they show; sorted when there is a hand free. */
const job = useJobStore()
const pictures = useWaitingPictures()
const { busy, problem, send } = usePhotoTaking()
const loose = computed(() => job.site.all.photo.filter(p => valueOf(p, 'of') === undefined))
const things = computed(() => refTargets(job.site, FIELDS.photo.of))
const chooser = useTemplateRef<HTMLInputElement>('chooser')
const open = ref('')
const url = (photo: Subject<'photo'>) => {
  const hash = valueOf(photo, 'hash')
  return hash ? `/api/jobs/${job.jobId}/photos/${hash}?size=thumb` : pictures.urlOf(photo.id)
}
async function pick(event: Event) {
  const input = event.target as HTMLInputElement
  const files = [...(input.files ?? [])]
  input.value = ''
  for (const file of files) await send(file)
}
</script>

<template>
  <section class="loose" data-testid="loose">
    <div class="head">
      <p class="small soft">
        {{
          loose.length
            ? `${loose.length} ${loose.length === 1 ? 'picture' : 'pictures'} to sort`
            : 'Hands full? Take the pictures now, and say what they show later.'
        }}
      </p>
      <UButton
        color="neutral"
        variant="outline"
        size="lg"
        icon="lucide:camera"
        label="Take pictures"
        :loading="busy"
        @click="chooser?.click()"
      />
      <!-- The camera is opened by the browser, which only this element can ask for. -->
      <input
        ref="chooser"
        type="file"
        accept="image/jpeg,image/png,image/webp"
        multiple
        class="sr-only"
        tabindex="-1"
        aria-hidden="true"
        @change="pick"
      />
    </div>
    <p v-if="problem" role="alert" class="small why">{{ problem }}</p>
    <ul v-if="loose.length">
      <li v-for="p in loose" :key="p.id">
        <UButton
          color="neutral"
          variant="ghost"
          class="thumb bare"
          aria-label="open the picture"
          @click="open = p.id"
          ><img v-if="url(p)" :src="url(p)" alt="picture not sorted yet" loading="lazy"
        /></UButton>
        <USelectMenu
          class="what"
          value-key="id"
          placeholder="it shows …"
          aria-label="what it shows"
          :items="things"
          @update:model-value="v => job.note(p.id, 'of', String(v), 'seen')"
        />
      </li>
    </ul>
    <PhotoView
      v-if="open && job.site.get(open, 'photo')"
      :photo="job.site.get(open, 'photo')!"
      @close="open = ''"
    />
  </section>
</template>

<style scoped>
.loose {
  display: grid;
  gap: 0.5rem;
  margin-bottom: 0.9rem;
}
.head {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 0.5rem 1rem;
}
ul {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(17rem, 1fr));
  gap: 0.6rem;
}
li {
  display: flex;
  gap: 0.6rem;
  align-items: center;
}
.thumb {
  flex: none;
  width: 76px;
  height: 58px;
  overflow: hidden;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--tint);
}
.thumb img {
  width: 100%;
  height: 100%;
  object-fit: cover;
}
.what {
  flex: 1;
  min-width: 0;
}
.why {
  color: var(--repair);
}
</style>
