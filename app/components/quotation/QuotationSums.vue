<script setup lang="ts">
import { formatMoney, formatPercent } from '#core/quotation/money'
import type { Letterhead } from '#core/quotation/terms'
import type { QuotationTotals } from '#core/quotation/totals'

/** Totals of the quotation. */
const props = defineProps<{ totals: QuotationTotals; letterhead: Letterhead }>()
const money = (amount: number): string =>
  formatMoney(amount, props.letterhead.currency, props.letterhead.locale)
</script>

<template>
  <dl class="grid grid-cols-[1fr_auto] gap-x-3 gap-y-1" data-testid="quotation-totals">
    <dt>Subtotal</dt>
    <dd class="text-right">{{ money(totals.subtotal) }}</dd>
    <template v-if="totals.discount > 0">
      <dt>Discount</dt>
      <dd class="text-right">{{ money(-totals.discount) }}</dd>
    </template>
    <template v-for="{ rate, on, tax } in totals.taxes" :key="rate.name">
      <dt>
        {{ rate.name }} {{ formatPercent(rate.percent, letterhead.locale) }}
        <span class="text-xs text-soft">on {{ money(on) }}</span>
      </dt>
      <dd class="text-right">{{ money(tax) }}</dd>
    </template>
    <dt class="border-t border-line pt-1 text-lg font-semibold">
      Total<span v-if="totals.unpriced.length" class="text-bad">
        ({{ totals.unpriced.length }} {{ totals.unpriced.length === 1 ? 'price' : 'prices' }} missing)</span
      >
    </dt>
    <dd class="border-t border-line pt-1 text-right text-lg font-semibold">{{ money(totals.total) }}</dd>
    <template v-if="totals.deposit > 0">
      <dt>Deposit</dt>
      <dd class="text-right">{{ money(totals.deposit) }}</dd>
    </template>
  </dl>
</template>
