<script setup lang="ts">
import {
  entryKinds,
  entryOf,
  writtenKinds,
  type EntryBody,
  type EntryKind,
  type LogEntry,
} from '#core/logbook/entry'
import { logQuantities, logQuantity, type LogQuantityId } from '#core/logbook/quantities'
import { entryProblems } from '#core/logbook/check-entry'
import { todayHere } from '../../utils/craft'

/** A new entry of a logbook, or one that corrects another. */
const props = defineProps<{ subjects: readonly string[]; corrects?: LogEntry }>()
const emit = defineEmits<{ add: [entry: EntryBody] }>()
const { parse, unitName, n } = useWriting()
const old = props.corrects
const kind = ref<EntryKind>(!old ? 'reading' : old.kind === 'photo' ? 'note' : old.kind)
const quantity = ref<LogQuantityId>(old?.quantity ?? 'capacity')
const unit = computed(() => logQuantity(quantity.value).unit)
const written = (value: number | null | undefined): string =>
  value == null || !old?.quantity ? '' : n(value, logQuantity(old.quantity).unit)
const form = reactive({
  day: old?.at.slice(0, 10) ?? todayHere(),
  subject: old?.subject ?? '',
  value: written(old?.value),
  expected: written(old?.expected),
  words: old?.words ?? '',
  serial: old?.serial ?? '',
  warrantyEnd: old?.warrantyEnd ?? '',
})
const problem = ref('')
const list = useId()
const fieldWords: Readonly<Record<string, string>> = {
  value: 'Reading',
  expected: 'Value when new',
  words: 'Words',
  subject: 'Part',
  at: 'Date',
  warrantyEnd: 'Warranty end',
}

/** A typed number in the unit of the quantity; null if nothing was typed. */
function numberOf(text: string, label: string): number | null {
  if (text.trim() === '') return null
  const parsed = parse(text, unit.value)
  if (parsed.ok) return parsed.value
  problem.value = `${label}: ${parsed.error}`
  return null
}
function add() {
  problem.value = ''
  const isReading = kind.value === 'reading'
  const entry = entryOf({
    kind: kind.value,
    // Noon is the same day everywhere.
    at: `${form.day}T12:00:00.000Z`,
    source: 'typed',
    quantity: isReading ? quantity.value : null,
    subject: ['reading', 'replaced'].includes(kind.value) ? form.subject.trim() : '',
    value: isReading ? numberOf(form.value, 'Reading') : null,
    expected: isReading ? numberOf(form.expected, 'Value when new') : null,
    words: form.words.trim(),
    serial: kind.value === 'replaced' ? form.serial.trim() : '',
    warrantyEnd: kind.value === 'replaced' ? form.warrantyEnd || null : null,
    corrects: old?.id ?? null,
  })
  const [wrong] = entryProblems(entry, Date.now())
  if (!problem.value && wrong) problem.value = `${fieldWords[wrong.field] ?? wrong.field} ${wrong.reason}.`
  if (!problem.value) emit('add', entry)
}
</script>

<template>
  <form class="grid grid-cols-2 gap-3 md:grid-cols-4" @submit.prevent="add">
    <label class="block"
      ><span class="mb-0.5 block text-xs text-soft">Entry</span
      ><select v-model="kind" class="entry">
        <option v-for="id in writtenKinds" :key="id" :value="id">{{ entryKinds[id] }}</option>
      </select></label
    >
    <label class="block"
      ><span class="mb-0.5 block text-xs text-soft">Date</span
      ><input v-model="form.day" type="date" class="entry" required
    /></label>
    <template v-if="kind === 'reading'">
      <label class="block"
        ><span class="mb-0.5 block text-xs text-soft">Quantity</span
        ><select v-model="quantity" class="entry">
          <option v-for="(one, id) in logQuantities" :key="id" :value="id">{{ one.label }}</option>
        </select></label
      >
      <label class="block"
        ><span class="mb-0.5 block text-xs text-soft">{{ logQuantity(quantity).at }}</span
        ><input v-model="form.subject" class="entry" maxlength="200" :list="list" autocomplete="off"
      /></label>
      <label class="block"
        ><span class="mb-0.5 block text-xs text-soft">Reading{{ unit && ` (${unitName(unit)})` }}</span
        ><input
          v-model="form.value"
          class="entry"
          inputmode="decimal"
          maxlength="30"
          required
          autocomplete="off"
      /></label>
      <label v-if="logQuantity(quantity).limit" class="block"
        ><span class="mb-0.5 block text-xs text-soft">Value when new{{ unit && ` (${unitName(unit)})` }}</span
        ><input
          v-model="form.expected"
          class="entry"
          inputmode="decimal"
          maxlength="30"
          autocomplete="off"
          placeholder="Optional"
      /></label>
    </template>
    <template v-if="kind === 'replaced'">
      <label class="block"
        ><span class="mb-0.5 block text-xs text-soft">Part</span
        ><input v-model="form.subject" class="entry" maxlength="200" :list="list" required autocomplete="off"
      /></label>
      <label class="block"
        ><span class="mb-0.5 block text-xs text-soft">Serial number</span
        ><input v-model="form.serial" class="entry" maxlength="100" autocomplete="off"
      /></label>
      <label class="block"
        ><span class="mb-0.5 block text-xs text-soft">Warranty ends</span
        ><input v-model="form.warrantyEnd" type="date" class="entry"
      /></label>
    </template>
    <label class="col-span-2 block md:col-span-4"
      ><span class="mb-0.5 block text-xs text-soft">{{
        kind === 'reading' || kind === 'replaced' ? 'Note' : 'Words'
      }}</span
      ><input v-model="form.words" class="entry" maxlength="500" autocomplete="off"
    /></label>
    <datalist :id="list">
      <option v-for="subject in subjects" :key="subject" :value="subject" />
    </datalist>
    <p v-if="problem" role="alert" class="col-span-full text-bad">{{ problem }}</p>
    <p class="col-span-full">
      <button type="submit" class="act">{{ old ? 'Save correction' : 'Add entry' }}</button>
    </p>
  </form>
</template>
