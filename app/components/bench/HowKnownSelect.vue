<script setup lang="ts">
import { howKnown, type How, type Known } from '#core/job/fields'

/** How a value is known. Nothing to choose while it is not known. */
const props = defineProps<{ label: string; known: Known<unknown> | null; fallback: boolean }>()
const emit = defineEmits<{ change: [how: How] }>()
const unknown = computed(() => props.known?.value == null)
</script>

<template>
  <select
    class="entry !px-1 text-xs max-md:text-sm"
    :aria-label="`How ${label} is known`"
    :disabled="unknown"
    :value="unknown ? '' : (known?.how ?? 'assumed')"
    @change="emit('change', ($event.target as HTMLSelectElement).value as How)"
  >
    <option v-if="unknown" value="">{{ fallback ? 'usual value' : 'how known' }}</option>
    <option v-for="(word, option) in howKnown" :key="option" :value="option">{{ word }}</option>
  </select>
</template>
