<script setup lang="ts">
import type { ChoiceField } from '#core/job/fields'

/** A few options side by side: a press, a digit or a first letter takes one; Delete makes it unknown again. */
const props = defineProps<{
  field: ChoiceField
  modelValue: string | null
  label: string
  describedBy: string
}>()
const emit = defineEmits<{ 'update:modelValue': [value: string | null]; onward: [] }>()
const group = useTemplateRef<HTMLElement>('group')
const options = computed(() => Object.entries(props.field.options))
/** The default option; null if the default depends on other fields. */
const usual = computed(() => (props.field.absent ? null : (props.field.otherwise ?? null)))
/** Tab reaches the chosen option, otherwise the first. */
const reached = computed(() =>
  Math.max(
    0,
    options.value.findIndex(([option]) => option === props.modelValue),
  ),
)

/** Short options stay in one line. */
const isShort = (word: string): boolean => word.length <= 6

const take = (option: string | null): void => emit('update:modelValue', option)
/** A tap moves on to the next field, as Enter does with keys. */
function press(option: string, event: MouseEvent) {
  take(option)
  if ((event as PointerEvent).pointerType === 'touch') emit('onward')
}
function move(by: number) {
  const { length } = options.value
  const at = props.modelValue === null ? (by > 0 ? 0 : length - 1) : (reached.value + by + length) % length
  take(options.value[at]![0])
  void nextTick(() => focusStep(group.value!))
}
function key(event: KeyboardEvent) {
  if (event.ctrlKey || event.metaKey || event.altKey) return
  const typed = event.key.toLowerCase()
  const byDigit = options.value[Number(typed) - 1]
  const byLetter = options.value.filter(([, word]) => word.toLowerCase().startsWith(typed))
  if (['arrowright', 'arrowdown'].includes(typed)) move(1)
  else if (['arrowleft', 'arrowup'].includes(typed)) move(-1)
  else if (['backspace', 'delete'].includes(typed)) take(null)
  else if (typed.length === 1 && byDigit) take(byDigit[0])
  else if (typed.length === 1 && byLetter.length === 1) take(byLetter[0]![0])
  else return
  event.preventDefault()
}
</script>

<template>
  <div
    ref="group"
    role="radiogroup"
    class="flex min-h-8 w-full min-w-0 rounded-sm border max-md:min-h-[46px]"
    :class="[
      modelValue === null ? 'border-dashed border-measure' : 'border-edge',
      inTwoLines(field) && 'max-md:grid max-md:grid-cols-2',
    ]"
    :aria-label="label"
    :aria-describedby="describedBy"
    @keydown="key"
  >
    <button
      v-for="([option, word], i) in options"
      :key="option"
      type="button"
      role="radio"
      class="min-w-0 flex-auto px-1 py-0.5 text-xs leading-tight max-md:min-h-11 not-first:border-l not-first:border-edge focus-visible:relative focus-visible:z-10"
      :class="[
        isShort(word) && 'whitespace-nowrap',
        option === modelValue
          ? 'bg-sea font-semibold text-on-sea'
          : modelValue === null && option === usual
            ? 'text-measure underline decoration-dashed underline-offset-4'
            : 'text-ink',
      ]"
      :data-option="option"
      :aria-checked="option === modelValue"
      :tabindex="i === reached ? 0 : -1"
      @click="press(option, $event)"
    >
      {{ word }}
    </button>
  </div>
</template>
