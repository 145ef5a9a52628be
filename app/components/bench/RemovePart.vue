<script setup lang="ts">
import { partName } from '#core/job/document'

/** Takes a part out of the survey. */
defineProps<{ path: string }>()
const bench = useJob()
</script>

<template>
  <button
    type="button"
    class="min-h-8 text-xs text-soft underline hover:text-bad max-md:min-h-11"
    @click="bench.removePart(path)"
  >
    Remove<span class="sr-only">{{ ` ${partName(bench.document!, path)}` }}</span>
  </button>
</template>
