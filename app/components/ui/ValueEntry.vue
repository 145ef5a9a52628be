<script setup lang="ts">
import type { Field } from '#core/job/fields'

/** A value typed as people write it: shown as understood, refused next to the field. Null is “not stated”. */
const { q, units } = useWriting()
const props = defineProps<{
  field: Field
  label: string
  modelValue: number | string | null
  empty?: string
  hideLabel?: boolean
  /** Label and entry in one row. */
  beside?: boolean
  name?: string
}>()
const emit = defineEmits<{ 'update:modelValue': [value: number | string | null]; bad: [error: string] }>()
const id = useId()
const error = ref('')
const text = ref('')
const shown = (): string => shownValue(props.field, props.modelValue, q)
watch(
  () => props.modelValue,
  () => {
    if (!error.value) text.value = shown()
  },
  { immediate: true },
)

function type(input: string) {
  text.value = input
  const read =
    input.trim() === '' ? { ok: true as const, value: null } : readQuantity(props.field, input, units.value)
  error.value = read.ok ? '' : read.error
  emit('bad', error.value)
  if (read.ok && read.value !== props.modelValue) emit('update:modelValue', read.value)
}
function step(direction: number) {
  if (props.field.type !== 'quantity') return
  const [least, most] = props.field.limits
  const start = typeof props.modelValue === 'number' ? props.modelValue : Math.max(0, least)
  const value = Math.min(
    most,
    Math.max(least, Number((start + direction * props.field.step).toPrecision(10))),
  )
  text.value = q(value, props.field.unit)
  error.value = ''
  emit('bad', '')
  emit('update:modelValue', value)
}
</script>

<template>
  <div :class="beside && 'grid grid-cols-[minmax(0,1fr)_6rem] items-center gap-x-2'">
    <label :for="id" :class="hideLabel ? 'sr-only' : 'leading-tight font-semibold'">{{ label }}</label>
    <select
      v-if="field.type === 'choice'"
      :id="id"
      class="entry"
      :data-entry="name"
      :value="modelValue ?? ''"
      @change="$emit('update:modelValue', ($event.target as HTMLSelectElement).value || null)"
    >
      <option value="">{{ empty ?? 'not stated' }}</option>
      <option v-for="(word, option) in field.options" :key="option" :value="option">{{ word }}</option>
    </select>
    <input
      v-else
      :id="id"
      type="text"
      class="entry"
      autocomplete="off"
      maxlength="60"
      :data-entry="name"
      :value="text"
      :placeholder="empty ?? 'not stated'"
      :aria-invalid="error !== ''"
      :aria-describedby="error ? `${id}-said` : undefined"
      @input="type(($event.target as HTMLInputElement).value)"
      @blur="error || (text = shown())"
      @keydown.up.prevent="step(1)"
      @keydown.down.prevent="step(-1)"
    />
    <p v-if="error" :id="`${id}-said`" class="col-span-full text-xs text-bad">{{ error }}</p>
  </div>
</template>
