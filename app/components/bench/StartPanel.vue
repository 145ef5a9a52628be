<script setup lang="ts">
import {
  openQuestions,
  sourceKinds,
  typicalBanks,
  withTypicalBank,
  type SourceKind,
} from '#core/job/beginning'
import { partsOf, withoutPart } from '#core/job/document'
import { candidateFromShelf, type ShelfPart } from '#core/shelf/kinds'

/** A new job in three questions: the sources of the bank, the bank itself, the wanted battery. */
const bench = useJob()
const view = useView()
const job = computed(() => bench.document!)
const open = computed(() => openQuestions(job.value))
const sourceWords: Readonly<Record<SourceKind, string>> = {
  alternators: 'Alternator',
  chargers: 'Mains charger',
  solar: 'Solar',
  sources: 'Wind, hydro or shaft',
}
const has = (kind: SourceKind) => partsOf(job.value, kind).length > 0

/** Adds a source, or takes it away again. */
function toggle(kind: SourceKind) {
  const parts = partsOf(job.value, kind)
  if (parts.length === 0) bench.addPart(kind)
  else bench.edit((document) => parts.reduce((next, { path }) => withoutPart(next, path), document))
}

const isBank = ({ values }: (typeof typicalBanks)[number]) =>
  Object.entries(values).every(
    ([name, value]) => job.value.houseBank[name as keyof typeof values]?.value === value,
  )

const picking = ref(false)
function take(part: ShelfPart) {
  picking.value = false
  bench.fillPart('candidate', candidateFromShelf(part))
}
</script>

<template>
  <section class="border border-sea bg-card p-4" aria-labelledby="start">
    <h3 id="start" class="text-lg">Three questions to start with</h3>
    <fieldset class="mt-3">
      <legend class="font-semibold">1. What charges the house bank?</legend>
      <p class="mt-1.5 flex flex-wrap gap-2">
        <button
          v-for="kind in sourceKinds"
          :key="kind"
          type="button"
          class="act-quiet"
          :class="has(kind) && 'border-sea bg-window font-semibold'"
          :aria-pressed="has(kind)"
          @click="toggle(kind)"
        >
          {{ sourceWords[kind] }}
        </button>
      </p>
    </fieldset>
    <fieldset class="mt-3">
      <legend class="font-semibold">2. What is the house bank now?</legend>
      <p class="mt-1.5 flex flex-wrap gap-2">
        <button
          v-for="bank in typicalBanks"
          :key="bank.title"
          type="button"
          class="act-quiet"
          :class="isBank(bank) && 'border-sea bg-window font-semibold'"
          :aria-pressed="isBank(bank)"
          @click="bench.edit((document) => withTypicalBank(document, bank))"
        >
          {{ bank.title }}
        </button>
      </p>
      <p class="mt-1 text-xs text-soft">Choose the nearest one. You can correct it later.</p>
    </fieldset>
    <fieldset class="mt-3">
      <legend class="font-semibold">3. Which battery does the customer want?</legend>
      <p class="mt-1.5 flex flex-wrap items-center gap-2">
        <button type="button" class="act" @click="picking = true">Choose from the shelf</button>
        <button type="button" class="act-quiet" @click="view.leaveBatteryOpen()">Not chosen yet</button>
      </p>
    </fieldset>
    <p class="mt-3 text-soft" role="status">
      {{
        open.length === 3
          ? 'A first verdict follows, with the values to measure.'
          : `${open.length} of 3 left.`
      }}
    </p>
    <ShelfPicker v-if="picking" :kinds="['batteries']" @pick="take" @close="picking = false" />
  </section>
</template>
