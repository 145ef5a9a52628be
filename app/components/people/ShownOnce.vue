<script setup lang="ts">
import { useClipboard } from '@vueuse/core'

/** A link or key that is shown once, to be copied. */
const props = defineProps<{ text: string; what: 'link' | 'key' }>()
defineEmits<{ close: [] }>()
/** Also where the browser has no clipboard because it does not trust the certificate. */
const { copy, copied } = useClipboard({ source: () => props.text, legacy: true })
</script>

<template>
  <p class="mt-2 text-xs break-all" :data-testid="what">{{ text }}</p>
  <p class="mt-3 flex gap-2">
    <button type="button" class="act-quiet" @click="copy()">
      {{ copied ? 'Copied' : `Copy ${what}` }}</button><button
      type="button"
      class="act-quiet"
      @click="$emit('close')"
    >
      Close
    </button>
  </p>
</template>
