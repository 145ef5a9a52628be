<script setup lang="ts">
import { entries } from '../../composables/focus'
import { inSentence } from '#core/units/format'
import type { Conflict } from '#core/job/changes'
import { fieldAt, partName } from '#core/job/document'
import { photoLabel } from '#core/job/paper-photos'
import { quotationLabel } from '#core/job/quotation'
import type { Known } from '#core/job/fields'
import { ago } from '../../utils/dates'

/** Two people changed the same values: both are shown, the person chooses. */
const { q } = useWriting()
const bench = useJob()
const device = useDeviceName()
const view = useView()
const choice = ref<Record<string, 'mine' | 'theirs'>>({})
const conflict = computed(() => bench.conflict)
/** The dialog takes the keys, so it never opens in the middle of typing: a bar offers it then. */
const isOpen = ref(false)
const isTyping = useFocusOn(entries)
watch(
  [conflict, isTyping, () => view.dialog],
  () => {
    isOpen.value = conflict.value !== null && (isOpen.value || !isTyping.value || view.dialog === 'choice')
    if (!conflict.value && view.dialog === 'choice') view.dialog = null
  },
  { immediate: true },
)
watch(conflict, () => {
  choice.value = {}
})
const by = computed(() => savedBy(conflict.value?.theirs.updatedBy ?? '', device.value))
const chosen = computed(() => conflict.value?.conflicts.every((c) => choice.value[c.path]) ?? false)

function label(path: string): string {
  const at = fieldAt(path)
  if (at) return `${partName(bench.document!, at.partPath)}: ${inSentence(at.field.label)}`
  const ofQuotation = quotationLabel(path) ?? photoLabel(path)
  if (ofQuotation) return ofQuotation
  return path.startsWith('job/') ? `Job: ${path.slice(4)}` : partName(bench.document!, path)
}

function words(path: string, value: unknown): string {
  if (value === undefined) return 'taken out'
  const at = fieldAt(path)
  if (at) return shownValue(at.field, (value as Known<unknown>).value, q) || 'unknown'
  if (typeof value === 'number') return String(value)
  return typeof value === 'string' ? value || 'empty' : 'changed'
}
const sides = (c: Conflict) =>
  [
    ['mine', 'Yours', c.mine.after],
    ['theirs', by.value, c.theirs.after],
  ] as const
const all = (side: 'mine' | 'theirs') => {
  choice.value = Object.fromEntries(conflict.value!.conflicts.map((c) => [c.path, side]))
}
</script>

<template>
  <AppDialog v-if="conflict && isOpen" :open="true" must :title="`${by} changed the same value`">
    <p>
      Saved {{ ago(conflict.theirs.updatedAt) }}, while you were typing. Both values are kept until you
      choose. All other changes are merged.
    </p>
    <div class="mt-3 flex gap-2">
      <button type="button" class="act-quiet" @click="all('mine')">Keep all of yours</button
      ><button type="button" class="act-quiet" @click="all('theirs')">Keep all of theirs</button>
    </div>
    <fieldset v-for="c in conflict.conflicts" :key="c.path" class="mt-3 border-t border-line pt-2">
      <legend class="font-semibold">{{ label(c.path) }}</legend>
      <label v-for="[side, name, value] in sides(c)" :key="side" class="flex min-h-11 items-center gap-3"
        ><input v-model="choice[c.path]" type="radio" :name="c.path" :value="side" class="size-5" /><span
          ><span class="text-soft">{{ name }}:</span> <strong>{{ words(c.path, value) }}</strong></span
        ></label
      >
    </fieldset>
    <button
      type="button"
      class="act mt-4"
      :disabled="!chosen"
      @click="bench.resolve((c) => choice[c.path] === 'mine')"
    >
      Save choices
    </button>
  </AppDialog>
</template>
