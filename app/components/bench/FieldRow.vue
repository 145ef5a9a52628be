<script setup lang="ts">
import { knownAt, partAt, type FieldPath } from '#core/job/document'
import type { Field, How, Known } from '#core/job/fields'
import { parseRows } from '#core/job/rows'
import { plausibleRange } from '#core/system/plausible'
import { inSentence } from '#core/units/format'

/** One value of the survey: how to find it, what it is, how it is known. */
const { q, n, units } = useWriting()
const props = defineProps<{ path: FieldPath; name: string; field: Field; settles?: number }>()
const bench = useJob()
const who = useDeviceName()
const id = useId()

const known = computed(() =>
  bench.document ? (knownAt(bench.document, props.path) as Known<unknown> | undefined) : undefined,
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

/** The value in the text, or what is wrong with it. */
function read(input: string): number | readonly unknown[] | null {
  error.value = ''
  if (props.field.type === 'rows') {
    const rows = parseRows(input, props.field)
    if (!rows) error.value = `Write it as ${props.field.example}`
    return rows
  }
  if (props.field.type !== 'quantity') return null
  const parsed = readQuantity(props.field, input, units.value)
  if (parsed.ok) return parsed.value
  error.value = parsed.error
  return null
}

function put(value: unknown, how: How = known.value?.how ?? usualHow(props.field)) {
  const stamp = how === 'measured' ? { when: new Date().toISOString(), by: who.value } : {}
  bench.setField(
    props.path,
    value == null ? { ...known.value, value: null } : { ...keptExtras(), value, how, ...stamp },
  )
}

/** Properties of the value this version does not know stay with it. */
function keptExtras(): Record<string, unknown> {
  const { value: _v, how: _h, when: _w, by: _b, ...others } = (known.value ?? {}) as Record<string, unknown>
  return others
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

function leave() {
  editing.value = false
  if (!error.value) text.value = shown()
}

function stepBy(direction: number) {
  if (props.field.type !== 'quantity' || !bench.document) return
  const partPath = props.path.slice(0, props.path.lastIndexOf('/'))
  const ref = partAt(bench.document, partPath)
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
const unknown = computed(() => known.value?.value == null)
const fallback = computed(() => props.field.type !== 'rows' && props.field.otherwise !== undefined)
const how = computed(() => ({
  label: inSentence(props.field.label),
  known: known.value ?? null,
  fallback: fallback.value,
}))
const placeholder = computed(() =>
  props.field.type === 'quantity'
    ? `${props.field.otherwise === null ? 'none' : 'not known yet'}${props.field.unit ? `, ${props.field.unit}` : ''}`
    : 'not known yet',
)
</script>

<template>
  <div class="border-l-2 px-3 py-2" :class="settles ? 'border-measure' : 'border-transparent'">
    <div :class="field.type === 'choice' ? 'flex items-center justify-between gap-x-2' : 'contents'">
      <label :for="id" class="font-semibold">{{ field.label }}</label>
      <HowKnownSelect
        v-if="field.type === 'choice'"
        class="!w-30 shrink-0 max-md:!w-36"
        v-bind="how"
        @change="put(known?.value, $event)"
      />
    </div>
    <p :id="`${id}-how`" class="mb-1 text-xs text-soft">{{ field.measure }}</p>
    <select
      v-if="field.type === 'choice'"
      :id="id"
      class="entry"
      :aria-describedby="`${id}-how`"
      :data-field="path"
      :value="known?.value ?? ''"
      @change="put(($event.target as HTMLSelectElement).value || null)"
    >
      <option value="">
        {{ fallback ? `not entered: ${field.options[field.otherwise as string]}` : 'not known yet' }}
      </option>
      <option v-for="(word, option) in field.options" :key="option" :value="option">{{ word }}</option>
    </select>
    <div v-else class="grid grid-cols-[minmax(0,1fr)_7.5rem] gap-2 max-md:grid-cols-[minmax(0,1fr)_9rem]">
      <input
        :id="id"
        class="entry"
        type="text"
        autocomplete="off"
        maxlength="400"
        :data-field="path"
        :inputmode="field.type === 'quantity' && field.unit === '' ? 'numeric' : 'text'"
        :placeholder="placeholder"
        :value="text"
        :aria-invalid="error !== ''"
        :aria-describedby="`${id}-how ${id}-said`"
        @focus="editing = true"
        @blur="leave"
        @input="type(($event.target as HTMLInputElement).value)"
        @keydown.up.prevent="stepBy(1)"
        @keydown.down.prevent="stepBy(-1)"
      />
      <HowKnownSelect v-bind="how" @change="put(known?.value, $event)" />
    </div>
    <p
      :id="`${id}-said`"
      class="min-h-4 text-xs"
      :class="error ? 'text-bad' : 'text-soft'"
      aria-live="polite"
    >
      <template v-if="error">{{ error }}. Not used until it can be read.</template>
      <template v-else-if="understood">{{ understood }}</template>
      <template v-else-if="settles && !unknown"
        >Counts once measured: bears on {{ settles }} {{ settles === 1 ? 'check' : 'checks' }}.</template
      >
      <template v-else-if="settles"
        >Measuring this bears on {{ settles }} {{ settles === 1 ? 'check' : 'checks' }}.</template
      >
    </p>
  </div>
</template>
