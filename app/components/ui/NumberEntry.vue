<script setup lang="ts">
import { parseQuantity } from '#core/units/parse'
import { metric } from '#core/units/display'

/** A plain number as people type it: with a comma or a point. Empty goes back to the usual. */
const props = defineProps<{
  label: string
  /** The number that was typed; undefined shows the usual one. */
  modelValue: number | undefined
  /** The effective value while the field is empty, as shown there. */
  usual?: number | string | null
  least?: number
  most: number
  whole?: boolean
  /** Behind the field: %. */
  unit?: string
  disabled?: boolean
}>()
const emit = defineEmits<{ 'update:modelValue': [value: number | undefined] }>()
const text = ref('')
const problem = ref('')
const shown = (value: number | string | null | undefined): string => (value == null ? '' : String(value))

/** The typed words as a number, undefined if empty, or their error. */
function read(): number | undefined | { readonly wrong: string } {
  if (text.value.trim() === '') return undefined
  const parsed = parseQuantity(text.value, '', metric)
  const least = props.least ?? 0
  if (!parsed.ok || (props.whole && !Number.isInteger(parsed.value)))
    return { wrong: props.whole ? 'Enter a whole number.' : 'Enter a number.' }
  return parsed.value < least || parsed.value > props.most
    ? { wrong: `Enter ${least} to ${props.most}.` }
    : parsed.value
}
watch(
  () => props.modelValue,
  (value) => {
    // The typed text stays: 12, may become 12,5.
    if (read() !== value) text.value = shown(value)
  },
  { immediate: true },
)
/** Takes the typed text as soon as it is a number; its error shows when the field loses focus. */
function take(isLeft: boolean): void {
  const value = read()
  const isWrong = typeof value === 'object'
  if (isLeft || !isWrong) problem.value = isWrong ? value.wrong : ''
  if (!isWrong && value !== props.modelValue) emit('update:modelValue', value)
}
</script>

<template>
  <label class="block">
    <span class="mb-0.5 block text-xs text-soft">{{ label }}{{ unit && ` (${unit})` }}</span>
    <input
      v-model="text"
      class="entry text-right"
      inputmode="decimal"
      autocomplete="off"
      maxlength="16"
      :placeholder="shown(usual)"
      :disabled="disabled"
      :aria-invalid="problem !== ''"
      @input="take(false)"
      @change="take(true)"
    />
    <span v-if="problem" role="alert" class="block text-xs text-bad">{{ problem }}</span>
  </label>
</template>
