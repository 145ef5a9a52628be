<script setup lang="ts">
import { durationWords } from '#core/units/format'
import type { RunResult } from '#core/simulation/runs'
import type { Totals } from '#core/simulation/totals'

/** Results of the runs, in figures, side by side. */
const { q } = useWriting()
const { results } = defineProps<{ results: readonly RunResult[]; titles: readonly string[] }>()

/** Text for a system without an alternator; the row is left out if no system has one. */
const absent = '–'
/** When something came: within two hours as minutes, later as the moment. */
function came(hours: number | null, totals: Totals, otherwise: string): string {
  if (hours === null) return otherwise
  return hours <= 2
    ? `after ${durationWords(hours)}`
    : momentOfRun(hours * 3600, { run: results[0]!.run, hours: totals.hours })
}
const times = (count: number): string => (count === 1 ? 'once' : `${count} times`)
const totalRows: readonly (readonly [string, (totals: Totals) => string])[] = [
  ['Charge at the end', (t) => q(t.endSoc * 100, '%')],
  ['Lowest charge', (t) => q(t.leastSoc * 100, '%')],
  ['Full', (t) => came(t.fullAfterH, t, 'not reached')],
  ['Loads off', (t) => came(t.darkAfterH, t, 'never')],
  ['From the engine', (t) => q(t.engineAh, 'Ah')],
  ['From mains and generator', (t) => q(t.mainsAh, 'Ah')],
  ['From the sun', (t) => q(t.solarAh, 'Ah')],
  ['From other sources', (t) => q(t.sourceAh, 'Ah')],
  ['Used by loads', (t) => q(t.loadAh, 'Ah')],
  ['Not supplied', (t) => q(t.unservedAh, 'Ah')],
  ['Lost to the starting side', (t) => q(t.backAh, 'Ah')],
  ['Alternator peak', (t) => (t.alternatorPeakC === null ? absent : q(t.alternatorPeakC, '°C'))],
  [
    'Alternator at its limit after driving',
    (t) =>
      t.alternatorPeakC === null
        ? absent
        : t.alternatorLimitMin === null
          ? 'never'
          : durationWords(t.alternatorLimitMin / 60),
  ],
  ['Alternator above its limit', (t) => durationWords(t.alternatorHotH)],
  ['Charge refused because of cold or heat', (t) => durationWords(t.coldRefusedH)],
  ['Charged into cells below their limit', (t) => q(t.coldChargedAh, 'Ah')],
  ['Heater', (t) => q(t.heaterWh, 'Wh')],
  ['Lead-acid above gassing', (t) => durationWords(t.leadGassingH)],
  ['Lost inside the lead-acid', (t) => q(t.leadLostAh, 'Ah')],
  ['Drawn from the AC supply', (t) => q(t.acSupplyA, 'A')],
  ['Days short', (t) => q(t.daysShort, 'days')],
  ['BMS cut out', (t) => times(t.cutOuts)],
]
/** Figures that are zero in each system are left out. */
const rows = computed(() =>
  totalRows
    .map(([label, words]) => ({ label, values: results.map(({ totals }) => words(totals)) }))
    .filter(({ values }) => values.some((value) => value !== absent && !value.startsWith('0 '))),
)
</script>

<template>
  <div class="overflow-x-auto border border-line bg-card p-3" tabindex="0" role="region" aria-label="Totals">
    <h2 class="text-lg">Totals</h2>
    <table class="w-full" data-testid="totals">
      <thead v-if="results.length > 1">
        <tr class="text-left text-xs text-soft">
          <td />
          <th v-for="title in titles" :key="title" class="px-1 text-right font-normal">{{ title }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="{ label, values } in rows" :key="label" class="border-t border-line">
          <th scope="row" class="py-0.5 text-left font-normal">{{ label }}</th>
          <td
            v-for="(value, k) in values"
            :key="k"
            class="px-1 py-0.5 text-right font-semibold whitespace-nowrap"
          >
            {{ value }}
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
