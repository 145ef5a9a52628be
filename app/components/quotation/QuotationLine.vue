<script setup lang="ts">
import type { LineChange, LineSettings } from '#core/job/quotation'
import { costOf, quantityWords, type QuotationLine, type UnpricedPart } from '#core/quotation/lines'
import { formatMoney, minorOf, plainMoney } from '#core/quotation/money'
import type { Letterhead } from '#core/quotation/terms'

/** A line of the quotation that is being prepared: its price, discount, tax, and whether the customer may choose. */
const props = defineProps<{
  line: QuotationLine
  settings: LineSettings | undefined
  letterhead: Letterhead
  isAdded: boolean
  /** The part of the line, if the shelf has no price for it. */
  unpriced?: UnpricedPart | null
}>()
const emit = defineEmits<{ set: [change: LineChange]; remove: [] }>()
/** The price in whole units of the currency, as the field shows it. */
const usualPrice = computed(() =>
  props.line.price === null ? null : plainMoney(props.line.price, props.letterhead.currency),
)
/** On the phone a line is folded until it is changed; one without a price is open. */
const isOpen = ref(props.line.net === null)
const folded = computed(() => (isOpen.value ? '' : 'max-md:hidden'))
const optional = computed({
  get: () => props.line.isOptional,
  set: (is) => {
    emit('set', { isOptional: is || undefined })
  },
})
/** The shelf price for the typed price, less the margin. */
const shelfPrice = computed(() =>
  props.settings?.price === undefined
    ? null
    : costOf(props.settings.price, props.line.group, props.letterhead),
)
const tax = computed({
  get: () => props.line.tax.name,
  set: (name) => {
    emit('set', { tax: name === props.letterhead.taxRates[0]?.name ? undefined : name })
  },
})
</script>

<template>
  <li
    class="grid items-end gap-x-3 gap-y-1 border-t border-line py-2 max-md:grid-cols-2 md:grid-cols-[minmax(0,1fr)_7rem_6rem_auto_5.5rem_7rem]"
    :data-line="line.id"
  >
    <div class="self-center max-md:col-span-2">
      <p class="font-semibold">{{ line.name }}</p>
      <p class="text-xs text-soft">
        {{ quantityWords(line, letterhead.locale) }}
        <button
          type="button"
          class="ml-2 min-h-11 underline md:hidden"
          :aria-expanded="isOpen"
          @click="isOpen = !isOpen"
        >
          {{ isOpen ? 'Close' : 'Change' }}<span class="sr-only"> {{ line.name }}</span>
        </button>
        <button
          v-if="isAdded"
          type="button"
          class="ml-2 min-h-8 underline max-md:min-h-11"
          @click="emit('remove')"
        >
          Remove line
        </button>
      </p>
    </div>
    <NumberEntry
      :class="folded"
      :label="line.unit === '' ? 'Price' : `Price per ${line.unit}`"
      :model-value="settings?.price"
      :usual="usualPrice"
      :most="10_000_000"
      @update:model-value="emit('set', { price: $event })"
    />
    <NumberEntry
      :class="folded"
      label="Discount"
      unit="%"
      :model-value="settings?.discountPercent"
      :usual="0"
      :most="100"
      @update:model-value="emit('set', { discountPercent: $event })"
    />
    <label v-if="letterhead.taxRates.length > 1" class="block" :class="folded"
      ><span class="mb-0.5 block text-xs text-soft">Tax</span
      ><select v-model="tax" class="entry">
        <option v-for="{ name, percent } in letterhead.taxRates" :key="name" :value="name">
          {{ name }} {{ percent }} %
        </option>
      </select></label
    ><span v-else class="max-md:hidden" />
    <label class="flex min-h-9 items-center gap-2 max-md:min-h-11" :class="folded"
      ><input v-model="optional" type="checkbox" class="size-5" />Option</label
    >
    <p
      class="self-center text-right font-semibold max-md:col-span-2"
      :class="line.net === null ? 'text-bad' : ''"
    >
      {{
        line.net === null ? 'Price missing' : formatMoney(line.net, letterhead.currency, letterhead.locale)
      }}
    </p>
    <ShelfPrice
      v-if="unpriced && shelfPrice !== null"
      :part="unpriced"
      :price="shelfPrice"
      :words="formatMoney(minorOf(shelfPrice, letterhead.currency), letterhead.currency, letterhead.locale)"
    />
  </li>
</template>
