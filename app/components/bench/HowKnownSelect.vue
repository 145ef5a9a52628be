<script setup lang="ts">
import { howKnown, type How, type Known } from '#core/job/fields'

/** How a value is known, as one letter that opens the list. Nothing to choose while it is not known. */
const props = defineProps<{ label: string; known: Known<unknown> | null; unread: boolean }>()
const emit = defineEmits<{ change: [how: How] }>()
const unknown = computed(() => props.known?.value == null)
const byLetter = new Map(Object.entries(howLetter).map(([how, letter]) => [letter.toLowerCase(), how as How]))
function key(event: KeyboardEvent) {
  const how =
    event.ctrlKey || event.metaKey || event.altKey ? undefined : byLetter.get(event.key.toLowerCase())
  if (!how) return
  event.preventDefault()
  emit('change', how)
}
const how = computed<How>(() => props.known?.how ?? 'assumed')
</script>

<template>
  <span
    class="relative grid size-7 shrink-0 place-items-center rounded-sm border text-xs focus-within:outline-2 focus-within:outline-offset-2 focus-within:outline-sea max-md:size-[46px]"
    :class="[
      unknown ? 'border-dashed border-measure text-measure' : 'border-line text-soft',
      how === 'measured' && !unknown && '!border-sea font-bold !text-sea',
      unread && '!border-bad !text-bad',
    ]"
    ><span aria-hidden="true">{{ unread ? '!' : unknown ? '?' : howLetter[how] }}</span>
    <select
      class="absolute inset-0 size-full cursor-pointer opacity-0 disabled:cursor-default"
      :aria-label="`How ${label} is known`"
      :title="unknown ? 'Not known' : howKnown[how]"
      :disabled="unknown"
      :value="unknown ? '' : how"
      @keydown="key"
      @change="emit('change', ($event.target as HTMLSelectElement).value as How)"
    >
      <option v-if="unknown" value="">not known</option>
      <option v-for="(word, option) in howKnown" :key="option" :value="option">{{ word }}</option>
    </select></span
  >
</template>
