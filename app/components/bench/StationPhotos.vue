<script setup lang="ts">
import type { PartKindId } from '#core/job/fields'
import { ask, type PhotoRow } from '../../utils/api'

/** Pictures taken at a station. Made smaller on the device before they are sent. */
const props = defineProps<{ station: PartKindId | `step-${string}` }>()
const bench = useJob()
const who = useDeviceName()
const { photos, load } = useJobPhotos()
const here = computed(() => photos.value.filter((photo) => photo.station === props.station))
const problem = ref('')
const busy = ref(false)
const open = ref<PhotoRow | null>(null)
onMounted(() => load(bench.id))

async function add(event: Event) {
  const chosen = event.target as HTMLInputElement
  const files = [...(chosen.files ?? [])]
  chosen.value = ''
  problem.value = ''
  busy.value = true
  for (const file of files) {
    const picture = await smallerPicture(file)
    if (!picture) {
      problem.value = `${file.name} is not a picture this device can read. Nothing was sent.`
      continue
    }
    const query = new URLSearchParams({
      who: who.value || 'Unnamed device',
      station: props.station,
      name: file.name.slice(0, 120),
    })
    const answer = await ask<PhotoRow>(`/api/jobs/${bench.id}/photos?${query}`, {
      method: 'POST',
      headers: { 'content-type': 'image/jpeg' },
      body: picture,
    })
    if (answer.kind !== 'ok')
      problem.value = problemOf(
        answer,
        `The server cannot be reached. ${file.name} was not sent; choose it again later.`,
      )
  }
  busy.value = false
  await load(bench.id)
}
async function remove(photo: PhotoRow) {
  const answer = await ask(`/api/jobs/${bench.id}/photos/${photo.id}`, { method: 'DELETE' })
  if (answer.kind !== 'ok')
    problem.value = problemOf(answer, 'The server cannot be reached. The photo is still there.')
  open.value = null
  await load(bench.id)
}
</script>

<template>
  <div>
    <ul v-if="here.length" class="mb-2 flex flex-wrap gap-2" aria-label="Photos">
      <li v-for="photo in here" :key="photo.id">
        <button type="button" class="block border border-edge" @click="open = photo">
          <img
            :src="`/api/jobs/${bench.id}/photos/${photo.id}`"
            :alt="`Photo: ${photo.name}`"
            class="size-20 object-cover"
            loading="lazy"
          />
        </button>
      </li>
    </ul>
    <label class="act-quiet focus-within:outline-2 focus-within:outline-sea"
      >{{ busy ? 'Sending …' : 'Add a photo'
      }}<input type="file" accept="image/*" multiple class="sr-only" :disabled="busy" @change="add"
    /></label>
    <p v-if="problem" role="alert" class="mt-1 text-xs text-bad">{{ problem }}</p>
    <AppDialog v-if="open" :open="true" :title="open.name" @update:open="open = null">
      <img
        :src="`/api/jobs/${bench.id}/photos/${open.id}`"
        :alt="`Photo: ${open.name}`"
        class="max-h-[60vh] w-full object-contain"
      />
      <p class="mt-2 flex items-center justify-between text-soft">
        <span>{{ open.takenBy }}, {{ ago(open.takenAt) }}</span
        ><button type="button" class="min-h-9 underline hover:text-bad max-md:min-h-11" @click="remove(open)">
          Remove this photo
        </button>
      </p>
    </AppDialog>
  </div>
</template>
