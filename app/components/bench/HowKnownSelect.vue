<script setup lang="ts">
import { howKnown, type How, type Known } from '#core/job/fields'
import { capital } from '#core/units/format'

/**
 * How a value is known, as a sign that opens the list. A tap on an assumed one confirms it at once; the list is
 * there afterwards. Nothing to choose while the value is unknown. The key of a small letter sets it for this
 * value, that of a capital letter for the next ones too.
 */
const props = defineProps<{
  label: string
  known: Known<unknown> | null
  unread: boolean
  /** How an assumed value is known once it is confirmed; null if there is none to confirm. */
  confirms: How | null
  compact?: boolean
}>()
const emit = defineEmits<{ change: [how: How, follows?: boolean] }>()
const unknown = computed(() => props.known?.value == null)
const byLetter = new Map(Object.entries(howLetter).map(([how, letter]) => [letter.toLowerCase(), how as How]))
function key(event: KeyboardEvent) {
  const how =
    event.ctrlKey || event.metaKey || event.altKey ? undefined : byLetter.get(event.key.toLowerCase())
  if (!how) return
  event.preventDefault()
  emit('change', how, event.shiftKey)
}
const how = computed<How>(() => props.known?.how ?? 'assumed')
const colour = computed(() => {
  if (props.unread) return 'border-bad text-bad'
  if (unknown.value) return 'border-measure text-measure'
  return how.value === 'measured' ? 'border-sea font-bold text-sea' : 'border-line text-soft'
})
</script>

<template>
  <span
    class="relative grid shrink-0 place-items-center rounded-sm border text-xs focus-within:outline-2 focus-within:outline-offset-2 focus-within:outline-sea max-md:size-[46px]"
    :class="[compact ? 'h-8 w-6' : 'size-7', unknown && 'border-dashed', colour]"
    ><span v-if="unread || unknown" aria-hidden="true">{{ unread ? '!' : '?' }}</span
    ><HowIcon v-else :how="how" />
    <select
      class="absolute inset-0 size-full cursor-pointer opacity-0 disabled:cursor-default"
      :aria-label="`How ${label} is known`"
      :title="unknown ? 'Unknown' : [howKnown[how], known?.from].filter(Boolean).join(', ')"
      :disabled="unknown"
      :value="unknown ? '' : how"
      @keydown="key"
      @change="emit('change', ($event.target as HTMLSelectElement).value as How)"
    >
      <option v-if="unknown" value="">unknown</option>
      <option v-for="(word, option) in howKnown" :key="option" :value="option">{{ word }}</option>
    </select>
    <button
      v-if="confirms"
      type="button"
      class="absolute inset-0 md:hidden"
      :aria-label="`${capital(label)} holds: ${howKnown[confirms].toLowerCase()}`"
      @click="emit('change', confirms)"
    />
  </span>
</template>
