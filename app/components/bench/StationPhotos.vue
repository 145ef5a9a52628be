<script setup lang="ts">
import type { PartKindId } from '#core/job/fields'
import type { ShownPhoto } from '../../composables/job-photos'
import { dropPhoto } from '../../device/photos'
import { ask } from '../../utils/api'

/** Photos of a station. They are made smaller and kept on the device, then sent. */
const props = defineProps<{ station: PartKindId | `step-${string}` }>()
const bench = useJob()
const { photos, load, add } = useJobPhotos()
const here = computed(() => photos.value.filter((photo) => photo.station === props.station))
const problem = ref('')
const busy = ref(false)
const open = ref<ShownPhoto | null>(null)
onMounted(() => load(bench.id))

async function choose(event: Event) {
  const files = takeFiles(event)
  problem.value = ''
  busy.value = true
  for (const file of files) {
    const picture = await smallerPicture(file)
    if (!picture) problem.value = `${file.name} is not a picture this device can read. Nothing was added.`
    else if (!(await add(props.station, file.name, picture)))
      problem.value = `This browser has no room left. ${file.name} was not added.`
  }
  busy.value = false
}
async function remove(photo: ShownPhoto) {
  if (photo.waits) await dropPhoto(photo.id)
  else {
    const answer = await ask(`/api/jobs/${bench.id}/photos/${photo.id}`, { method: 'DELETE' })
    if (answer.kind !== 'ok')
      problem.value = problemOf(answer, 'The server cannot be reached. The photo is still there.')
  }
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
            :src="photo.address"
            :alt="`Photo: ${photo.name}`"
            class="size-20 object-cover"
            loading="lazy"
          />
          <span v-if="photo.waits" class="block w-20 text-xs text-soft">{{
            photo.waits.refused ? 'not sent' : 'waits to be sent'
          }}</span>
        </button>
      </li>
    </ul>
    <label class="act-quiet focus-within:outline-2 focus-within:outline-sea"
      >{{ busy ? 'Adding …' : 'Add a photo'
      }}<input type="file" accept="image/*" multiple class="sr-only" :disabled="busy" @change="choose"
    /></label>
    <p v-if="problem" role="alert" class="mt-1 text-xs text-bad">{{ problem }}</p>
    <AppDialog v-if="open" :open="true" :title="open.name" @update:open="open = null">
      <img :src="open.address" :alt="`Photo: ${open.name}`" class="max-h-[60vh] w-full object-contain" />
      <p v-if="open.waits" class="mt-2">
        {{
          open.waits.refused
            ? `This photo was not sent. ${open.waits.refused}`
            : 'This photo is kept on this device and will be sent when the server can be reached.'
        }}
      </p>
      <p class="mt-2 flex items-center justify-between text-soft">
        <span>{{ open.takenBy }}, {{ ago(open.takenAt) }}</span
        ><button type="button" class="min-h-9 underline hover:text-bad max-md:min-h-11" @click="remove(open)">
          Remove this photo
        </button>
      </p>
    </AppDialog>
  </div>
</template>
