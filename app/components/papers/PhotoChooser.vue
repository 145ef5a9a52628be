<script setup lang="ts">
import {
  mostPaperPhotos,
  photoPapers,
  withPhotoChoice,
  type PhotoChoice,
  type PhotoPaper,
} from '#core/job/paper-photos'

/** Photos of the job: which papers show them, and with which caption. */
const bench = useJob()
const { photos, load } = useJobPhotos()
onMounted(() => load(bench.id))
const choices = computed(() => bench.document?.paperPhotos ?? {})
const captionOf = (id: string): string => choices.value[id]?.caption ?? ''
const has = (id: string, paper: PhotoPaper): boolean => choices.value[id]?.papers.includes(paper) ?? false
const set = (id: string, change: Partial<PhotoChoice>): void => {
  bench.edit((job) => ({ ...job, paperPhotos: withPhotoChoice(job.paperPhotos, id, change) }))
}
function toggle(id: string, paper: PhotoPaper): void {
  const before = choices.value[id]?.papers ?? []
  set(id, { papers: has(id, paper) ? before.filter((one) => one !== paper) : [...before, paper] })
}
const isFull = (paper: PhotoPaper): boolean =>
  photos.value.filter(({ id }) => has(id, paper)).length >= mostPaperPhotos
</script>

<template>
  <section class="border border-line bg-card p-3" aria-labelledby="photos-title">
    <h2 id="photos-title" class="text-lg">Photographs</h2>
    <p v-if="photos.length === 0" class="text-soft">
      This job has no photos yet. Take them at the stations of the bench or at the steps of the work.
    </p>
    <p v-else class="text-soft">
      Choose the papers that show a photo. A paper shows up to {{ mostPaperPhotos }}.
    </p>
    <ul v-if="photos.length" aria-label="Photos for papers">
      <li
        v-for="photo in photos"
        :key="photo.id"
        class="grid grid-cols-[5rem_minmax(0,1fr)] gap-3 border-t border-line py-2 first:border-t-0"
      >
        <img
          :src="photo.address"
          :alt="`Photo: ${photo.name}`"
          class="size-20 border border-edge object-cover"
          loading="lazy"
        />
        <div class="min-w-0">
          <label class="block"
            ><span class="text-xs text-soft">Caption</span
            ><input
              class="entry"
              maxlength="200"
              autocomplete="off"
              :value="captionOf(photo.id)"
              @change="set(photo.id, { caption: ($event.target as HTMLInputElement).value.trim() })"
          /></label>
          <p class="mt-1 flex flex-wrap gap-x-4">
            <label
              v-for="(word, paper) in photoPapers"
              :key="paper"
              class="flex min-h-8 items-center gap-1.5 max-md:min-h-11"
              ><input
                type="checkbox"
                class="size-4"
                :checked="has(photo.id, paper)"
                :disabled="!has(photo.id, paper) && isFull(paper)"
                @change="toggle(photo.id, paper)"
              />{{ word }}</label
            >
          </p>
        </div>
      </li>
    </ul>
  </section>
</template>
