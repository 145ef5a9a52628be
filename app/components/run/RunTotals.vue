<script setup lang="ts">
import type { RunResult, Totals } from '#core/simulation/runs'
import { formatQuantity } from '#core/units/format'

/** What came of the runs, in figures, side by side. */
const { results } = defineProps<{ results: readonly RunResult[]; titles: readonly string[] }>()

/** What a system without an alternator says of one; left out where no system has one. */
const absent = '–'
const times = (count: number): string => (count === 1 ? 'once' : `${count} times`)
const totalRows: readonly (readonly [string, (totals: Totals) => string])[] = [
  ['Charge at the end', (t) => formatQuantity(t.endSoc * 100, '%')],
  ['Lowest charge', (t) => formatQuantity(t.leastSoc * 100, '%')],
  ['Full after', (t) => (t.fullAfterH === null ? 'not reached' : formatQuantity(t.fullAfterH, 'h'))],
  ['Loads went off after', (t) => (t.darkAfterH === null ? 'never' : formatQuantity(t.darkAfterH, 'h'))],
  ['From the engine', (t) => formatQuantity(t.engineAh, 'Ah')],
  ['From mains', (t) => formatQuantity(t.mainsAh, 'Ah')],
  ['From the sun', (t) => formatQuantity(t.solarAh, 'Ah')],
  ['From other sources', (t) => formatQuantity(t.sourceAh, 'Ah')],
  ['Used by loads', (t) => formatQuantity(t.loadAh, 'Ah')],
  ['Not served', (t) => formatQuantity(t.unservedAh, 'Ah')],
  ['Lost to the starting side', (t) => formatQuantity(t.backAh, 'Ah')],
  ['Alternator peak', (t) => (t.alternatorPeakC === null ? absent : formatQuantity(t.alternatorPeakC, '°C'))],
  ['Alternator at its limit after', (t) => (t.alternatorPeakC === null ? absent : t.alternatorLimitMin === null ? 'never' : formatQuantity(t.alternatorLimitMin, 'min'))],
  ['Alternator above its limit', (t) => formatQuantity(t.alternatorHotH, 'h')],
  ['Charge refused for cold or heat', (t) => formatQuantity(t.coldRefusedH, 'h')],
  ['Heater', (t) => formatQuantity(t.heaterWh, 'Wh')],
  ['Lead above gassing', (t) => formatQuantity(t.leadGassingH, 'h')],
  ['Lost inside the lead', (t) => formatQuantity(t.leadLostAh, 'Ah')],
  ['Drawn from the AC supply', (t) => formatQuantity(t.acSupplyA, 'A')],
  ['Days short', (t) => formatQuantity(t.daysShort, 'days')],
  ['BMS cut out', (t) => times(t.cutOuts)],
]
/** What stayed at nothing in every system is left out. */
const rows = computed(() => totalRows.map(([label, words]) => ({ label, values: results.map(({ totals }) => words(totals)) })).filter(({ values }) => values.some((value) => value !== absent && !value.startsWith('0 '))))
</script>

<template>
  <div class="overflow-x-auto border border-line bg-card p-3" tabindex="0" role="region" aria-label="Totals">
    <h2 class="text-lg">Totals</h2>
    <table class="w-full" data-testid="totals">
      <thead v-if="results.length > 1"><tr class="text-left text-xs text-soft"><td /><th v-for="title in titles" :key="title" class="px-1 text-right font-normal">{{ title }}</th></tr></thead>
      <tbody>
        <tr v-for="{ label, values } in rows" :key="label" class="border-t border-line"><th scope="row" class="py-0.5 text-left font-normal">{{ label }}</th><td v-for="(value, k) in values" :key="k" class="px-1 py-0.5 text-right font-semibold whitespace-nowrap">{{ value }}</td></tr>
      </tbody>
    </table>
  </div>
</template>
