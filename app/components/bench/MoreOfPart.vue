<script setup lang="ts">
import { partName } from '#core/job/document'

/** Shows and hides the rarely needed fields of a part. */
defineProps<{ path: string; open: boolean }>()
defineEmits<{ toggle: [event: Event] }>()
const bench = useJob()
</script>

<template>
  <button
    type="button"
    class="min-h-6 px-1 text-xs underline max-md:min-h-11"
    data-step
    :aria-expanded="open"
    :aria-label="`${open ? 'Less' : 'More'} of ${partName(bench.document!, path)}`"
    @click="$emit('toggle', $event)"
  >
    {{ open ? 'Less' : 'More' }}
  </button>
</template>
