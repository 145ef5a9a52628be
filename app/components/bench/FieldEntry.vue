<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { knownAt, partAt, type FieldPath } from '#core/job/document'
import { usualHow, type Field, type How, type Known } from '#core/job/fields'
import { parseRows, rowsProblem } from '#core/job/rows'
import { plausibleRange } from '#core/system/plausible'
import { unitName } from '#core/units/display'
import { inSentence } from '#core/units/format'

/** The entry of one value of the survey, with how it is known. */
const { q, n, units } = useWriting()
const props = defineProps<{
  /** Of the element that is labelled. */
  id: string
  path: FieldPath
  name: string
  field: Field
  /** In a cell of a table: entry and how known as one box. */
  compact?: boolean
}>()
const bench = useJob()
const view = useView()
const { enter } = useEntering()
const root = useTemplateRef<HTMLElement>('root')

const known = computed(() =>
  bench.document ? (knownAt(bench.document, props.path) as Known<unknown> | undefined) : undefined,
)
/** The part that the value is of. */
const partRef = computed(() =>
  bench.document ? partAt(bench.document, props.path.slice(0, props.path.lastIndexOf('/'))) : null,
)
const text = ref('')
const error = ref('')
const editing = ref(false)

const shown = (): string => shownValue(props.field, known.value?.value, q)

watch(
  [known, () => bench.typing[props.path]],
  () => {
    const kept = bench.typing[props.path]
    if (kept !== undefined && kept !== text.value) {
      text.value = kept
      read(kept)
    } else if (!editing.value && kept === undefined) {
      text.value = shown()
      error.value = ''
    }
  },
  { immediate: true },
)

/** The value in the text, or its error. */
function read(input: string): number | readonly unknown[] | null {
  error.value = ''
  if (props.field.type === 'rows') {
    const rows = parseRows(input, props.field)
    if (!rows) error.value = rowsProblem(input, props.field) ?? ''
    return rows
  }
  if (props.field.type !== 'quantity') return null
  const parsed = readQuantity(props.field, input, units.value, partRef.value?.part)
  if (parsed.ok) return parsed.value
  error.value = parsed.error
  return null
}

const put = (value: unknown, how?: How): void => enter(props.path, value, how)

/** Focuses the next text entry once the fields that depend on this value are shown. */
function onward() {
  void nextTick(() => {
    const sheet = root.value?.closest('[data-sheet]')
    const next = sheet && stepAfter(sheet, root.value!.querySelector<HTMLElement>('[data-step]')!)
    if (next instanceof HTMLInputElement) focusStep(next)
  })
}

/**
 * The source of this value; and of the following ones, if requested or if a source is set already. An assumption is
 * never such a source.
 */
function sayHow(how: How, follows = false) {
  if (how !== 'assumed' && (follows || view.source !== null)) view.source = how
  put(known.value?.value, how)
}
/** Confirms an assumed value, with the chosen source or the usual one. */
const isAssumed = computed(() => known.value?.value != null && known.value.how === 'assumed')
const confirmed = computed(() => {
  const how = view.source ?? usualHow(props.field)
  return isAssumed.value && how !== 'assumed' ? how : null
})
function confirm(event: KeyboardEvent) {
  if (!confirmed.value || event.ctrlKey || event.altKey || event.metaKey) return
  event.preventDefault()
  put(known.value!.value)
  const sheet = root.value?.closest('[data-sheet]')
  if (sheet) nextStep(sheet, event.target as HTMLElement)
}

function type(input: string) {
  text.value = input
  if (input.trim() === '') {
    error.value = ''
    bench.setTyping(props.path, null)
    if (known.value?.value != null) put(null)
    return
  }
  const value = read(input)
  if (value === null) bench.setTyping(props.path, input)
  else put(value)
}

/** A tap on an option moves on, as Enter does with keys. */
const isTouched = useMediaQuery('(pointer: coarse)')
function choose(event: Event) {
  put((event.target as HTMLSelectElement).value || null)
  if (isTouched.value) onward()
}
function take(event: FocusEvent) {
  editing.value = true
  view.inHand = props.path
  if (event.target instanceof HTMLInputElement) event.target.select()
}
function leave() {
  editing.value = false
  if (!error.value) text.value = shown()
}

function stepBy(direction: number) {
  if (props.field.type !== 'quantity' || !bench.document) return
  const ref = partRef.value
  const start =
    typeof known.value?.value === 'number'
      ? known.value.value
      : ref
        ? plausibleRange(bench.document, ref, props.name)[0]
        : 0
  const [least, most] = props.field.limits
  const value = Math.min(
    most,
    Math.max(least, Number((start + direction * props.field.step).toPrecision(10))),
  )
  put(value)
  text.value = q(value, props.field.unit)
}

const understood = computed(() => {
  const value = known.value?.value
  if (!editing.value || error.value || value == null || props.field.type !== 'quantity') return ''
  const typed = text.value.trim()
  return typed === n(value as number, props.field.unit) || typed === q(value as number, props.field.unit)
    ? ''
    : `read as ${q(value as number, props.field.unit)}`
})
const usual = computed(() => {
  const { field, compact } = props
  if (field.type === 'rows') return ''
  if (field.absent) return field.absent
  if (field.otherwise === null) return 'none'
  if (field.type === 'quantity')
    return typeof field.otherwise === 'number'
      ? `${compact ? '' : 'typical '}${q(field.otherwise, field.unit)}`
      : 'unknown'
  if (field.otherwise === undefined) return 'unknown'
  return `${compact ? '' : 'typical: '}${field.options[field.otherwise]}`
})
const unit = computed(() => (props.field.type === 'quantity' ? unitName(props.field.unit, units.value) : ''))
/** The unit is shown in the entry unless the text has one. */
const showsUnit = computed(() => unit.value !== '' && /^[\d.,\s–-]*$/.test(text.value) && text.value !== '')
const unread = computed(() => error.value !== '')
</script>

<template>
  <div
    ref="root"
    class="relative flex min-w-0 flex-1 items-center"
    :class="compact ? 'gap-0.5' : 'gap-2'"
    @keydown="$event.key === '=' && confirm($event)"
    @focusin="take"
    @focusout="leave"
  >
    <div class="relative min-w-0 flex-1">
      <ChoiceButtons
        v-if="field.type === 'choice' && (compact ? fitsShortButtons(field) : asButtons(field))"
        :field="field"
        :label="field.label"
        :described-by="`${id}-said`"
        :data-field="path"
        data-step
        :model-value="(known?.value as string) ?? null"
        @update:model-value="put($event)"
        @onward="onward"
      />
      <select
        v-else-if="field.type === 'choice'"
        :id="id"
        class="entry small"
        :class="[
          known?.value == null && 'border-dashed border-measure text-measure',
          compact && 'appearance-none px-1 text-ellipsis',
        ]"
        :aria-describedby="`${id}-said`"
        :data-field="path"
        data-step
        :value="known?.value ?? ''"
        @change="choose"
      >
        <option value="">{{ usual }}</option>
        <option v-for="(word, option) in field.options" :key="option" :value="option">{{ word }}</option>
      </select>
      <ReadingsEntry
        v-else-if="field.type === 'rows'"
        :id="id"
        :field="field"
        :text="text"
        :described-by="`${id}-said`"
        :data-field="path"
        data-step
        :invalid="unread"
        @type="type"
      />
      <template v-else>
        <input
          :id="id"
          class="entry small placeholder:text-measure"
          :class="[text === '' && 'border-dashed border-measure', compact && 'px-1']"
          type="text"
          autocomplete="off"
          maxlength="400"
          :data-field="path"
          data-step
          :inputmode="field.type === 'quantity' ? (field.unit === '' ? 'numeric' : 'decimal') : 'text'"
          enterkeyhint="next"
          :placeholder="usual"
          :value="text"
          :aria-invalid="unread"
          :aria-describedby="`${id}-said`"
          @input="type(($event.target as HTMLInputElement).value)"
          @keydown.up.prevent="stepBy(1)"
          @keydown.down.prevent="stepBy(-1)"
        />
        <span
          v-if="showsUnit"
          aria-hidden="true"
          class="pointer-events-none absolute inset-y-0 right-2 grid place-items-center text-xs text-soft"
          >{{ unit }}</span
        >
      </template>
    </div>
    <HowKnownSelect
      :label="inSentence(field.label)"
      :known="known ?? null"
      :unread="unread"
      :confirms="confirmed"
      :compact="compact"
      @change="sayHow"
    />
    <p
      :id="`${id}-said`"
      aria-live="polite"
      :class="
        editing && (error || understood)
          ? 'absolute top-full z-20 -mt-px border bg-card px-2 py-1 text-xs shadow-md ' +
            (compact ? 'left-0 w-max max-w-56 ' : 'right-0 max-w-full ') +
            (error ? 'border-bad text-bad' : 'border-edge text-soft')
          : 'sr-only'
      "
    >
      <template v-if="error">{{ error }}. Not used until it can be read.</template>
      <template v-else-if="understood">{{ understood }}</template>
    </p>
  </div>
</template>
