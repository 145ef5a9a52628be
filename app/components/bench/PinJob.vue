<script setup lang="ts">
import { keptJob, pinJob } from '../../device/jobs'

/** Keeps the job on this device however long ago it was changed. */
const bench = useJob()
const isPinned = ref(false)
watch(
  () => bench.id,
  async (id) => {
    isPinned.value = (await keptJob(id))?.isPinned ?? false
  },
  { immediate: true },
)
async function toggle() {
  if (!bench.stored) return
  const wanted = !isPinned.value
  if (await pinJob(bench.stored, wanted)) isPinned.value = wanted
  else bench.notice = 'This browser has no room left. The job is not kept on this device.'
}
</script>

<template>
  <button
    type="button"
    class="act-quiet tiny"
    :aria-pressed="isPinned"
    :disabled="!bench.stored"
    title="Jobs of the last 14 days stay on this device anyway"
    @click="toggle"
  >
    {{ isPinned ? 'Unpin job' : 'Pin job' }}
  </button>
</template>
