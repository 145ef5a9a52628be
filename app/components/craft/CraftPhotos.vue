<script setup lang="ts">
import { standingEntries, type LogEntry } from '#core/logbook/entry'
import { shownDay, type CraftPhoto } from '../../utils/craft'

/** Photographs of a craft: those in its logbook, and those of its jobs. */
const props = defineProps<{
  craft: string
  entries: readonly LogEntry[]
  ofJobs: readonly CraftPhoto[]
  /** Sends a photograph with its words. False if it was refused; the page says why. */
  add: (picture: Blob, words: string) => Promise<boolean>
}>()
const shown = computed(() => [
  ...standingEntries(props.entries)
    .filter(({ kind }) => kind === 'photo')
    .toReversed()
    .map(({ id, words, at }) => ({
      id,
      address: `/api/craft/${props.craft}/photos/${id}`,
      words: words || 'Photograph',
      foot: words || shownDay(at),
    })),
  ...props.ofJobs.map(({ id, job, jobNumber, name }) => ({
    id,
    address: `/api/jobs/${job}/photos/${id}`,
    words: `${name}, job ${jobNumber}`,
    foot: `Job ${jobNumber}`,
  })),
])
const chosen = shallowRef<readonly File[]>([])
const words = ref('')
const problem = ref('')
const isBusy = ref(false)

function choose(event: Event) {
  chosen.value = takeFiles(event)
  words.value = ''
  problem.value = ''
}
async function save() {
  isBusy.value = true
  const left: File[] = []
  for (const file of chosen.value) {
    const picture = await smallerPicture(file)
    if (!picture) problem.value = `${file.name} is not a picture this device can read. It was not added.`
    else if (!(await props.add(picture, words.value.trim()))) left.push(file)
  }
  chosen.value = left
  isBusy.value = false
}
</script>

<template>
  <section aria-labelledby="photos">
    <div class="mb-2 flex items-center">
      <h2 id="photos" class="mr-auto text-xl">Photos</h2>
      <label class="act-quiet focus-within:outline-2 focus-within:outline-sea"
        >Add a photo<input type="file" accept="image/*" multiple class="sr-only" @change="choose"
      /></label>
    </div>
    <ul v-if="shown.length" class="grid grid-cols-3 gap-2" aria-label="Photos">
      <li v-for="photo in shown" :key="photo.id">
        <a :href="photo.address" target="_blank"
          ><img
            :src="photo.address"
            :alt="photo.words"
            class="aspect-square w-full border border-edge object-cover"
            loading="lazy"
        /></a>
        <p class="truncate text-xs text-soft">{{ photo.foot }}</p>
      </li>
    </ul>
    <p v-else class="text-soft">No photos yet.</p>
    <p v-if="problem" role="alert" class="mt-1 text-bad">{{ problem }}</p>
    <AppDialog
      :open="chosen.length > 0"
      :title="chosen.length === 1 ? 'Add photograph' : `Add ${chosen.length} photographs`"
      @update:open="chosen = []"
    >
      <form @submit.prevent="save">
        <label class="block"
          ><span class="mb-0.5 block text-xs text-soft">What it shows</span
          ><input
            v-model="words"
            class="entry"
            maxlength="500"
            autocomplete="off"
            placeholder="Optional: battery box, port side"
        /></label>
        <p class="mt-2 text-soft">A photograph stays in the logbook of this craft.</p>
        <p class="mt-3">
          <button type="submit" class="act" :disabled="isBusy">{{ isBusy ? 'Adding …' : 'Add' }}</button>
        </p>
      </form>
    </AppDialog>
  </section>
</template>
