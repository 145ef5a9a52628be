<script setup lang="ts">
import { LineChart } from 'echarts/charts'
import { GridComponent, LegendComponent, TooltipComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { CanvasRenderer } from 'echarts/renderers'
import VChart from 'vue-echarts'
import type { LeadPlant, LfpPlant } from '#core/simulation/plant'
import { plain, theEngine } from '../../engine/client'
import type { Sharing } from '#core/simulation/sharing'

const { q, n } = useWriting()
use([LineChart, GridComponent, TooltipComponent, LegendComponent, CanvasRenderer])

/**
 * Sharing of the current in a mixed bank over the charge of the lithium: at rest, with loads on, and while
 * charging.
 */
const props = defineProps<{ lfp: LfpPlant; lead: LeadPlant; loadsA: number; chargeA: number }>()
const colours = useThemeColours()
const rows = ref<readonly (readonly Sharing[])[]>([])
watch(
  props,
  async () => {
    rows.value = await theEngine().sharing(plain(props.lfp), plain(props.lead), [
      -props.loadsA,
      0,
      props.chargeA,
    ])
  },
  { immediate: true },
)
const states = computed(
  () =>
    [
      { words: `loads on, ${q(props.loadsA, 'A')}`, dash: 'solid', rows: rows.value[0] ?? [] },
      { words: 'at rest', dash: 'dotted', rows: rows.value[1] ?? [] },
      { words: `charging, ${q(props.chargeA, 'A')}`, dash: 'dashed', rows: rows.value[2] ?? [] },
    ] as const,
)
const batteries: readonly {
  readonly name: string
  readonly amps: (row: Sharing) => number
  readonly colour: 'measure' | 'changed'
}[] = [
  { name: 'lithium', amps: (row) => row.lfpA, colour: 'measure' },
  { name: 'lead', amps: (row) => row.leadA, colour: 'changed' },
]
/**
 * Near empty, the lead-acid pours into the lithium: the drawing cuts off currents above twice the usual ones, and
 * the table shows them.
 */
const most = computed(() => 10 * Math.ceil((2 * Math.max(props.loadsA, props.chargeA)) / 10))
const option = computed(() => {
  const c = colours.value
  const series = states.value.flatMap(({ words, dash, rows }) =>
    batteries.map(({ name, amps, colour }) => ({
      type: 'line',
      name: `${name}, ${words}`,
      showSymbol: false,
      animation: false,
      lineStyle: { width: 1.5, type: dash, color: c[colour] },
      itemStyle: { color: c[colour] },
      data: rows.map((row) => [Math.round(row.soc * 100), Math.round(amps(row) * 10) / 10]),
      tooltip: { valueFormatter: (v: unknown) => `${Number(v)} A` },
    })),
  )
  return {
    textStyle: { fontFamily: chartFont, color: c.ink },
    tooltip: {
      trigger: 'axis',
      backgroundColor: c.card,
      borderColor: c.line,
      textStyle: { color: c.ink, fontSize: 12 },
      confine: true,
    },
    legend: { top: 0, textStyle: { color: c.ink, fontSize: 12 }, itemWidth: 26, itemHeight: 8 },
    grid: { left: 52, right: 16, top: 84, bottom: 40 },
    xAxis: {
      type: 'value',
      min: 0,
      max: 100,
      name: 'Charge of the lithium, %',
      nameLocation: 'middle',
      nameGap: 24,
      nameTextStyle: { color: c.soft },
      axisLabel: { color: c.soft },
      splitLine: { show: false },
    },
    yAxis: {
      type: 'value',
      min: -most.value,
      max: most.value,
      name: 'Into the battery, A',
      nameTextStyle: { align: 'left', color: c.soft, padding: [0, 0, 0, -44] },
      axisLabel: { color: c.soft },
      splitLine: { lineStyle: { color: c.line } },
    },
    series,
  }
})
/** Where on the way down the lead begins to carry a tenth of the loads. */
const helps = computed(() =>
  [...states.value[0].rows].reverse().find((row) => -row.leadA > props.loadsA / 10),
)
</script>

<template>
  <section class="border border-line bg-card p-3" aria-labelledby="sharing">
    <h2 id="sharing" class="text-lg">Sharing of the current</h2>
    <p>
      The lithium works first.
      {{
        helps
          ? `From ${q(helps.soc * 100, '%')} of its charge down the lead takes a tenth of the loads or more.`
          : 'At this load the lead never takes a tenth of it.'
      }}<template v-if="states.some((s) => s.rows.some((row) => row.off))">
        If a stop disconnects the lithium, the lead carries everything.</template
      >
    </p>
    <div
      role="img"
      aria-label="Currents of lead and lithium over the charge of the lithium. The table below holds the figures."
      class="h-80 w-full"
    >
      <VChart :option="option" autoresize class="h-full w-full" :update-options="{ notMerge: true }" />
    </div>
    <details>
      <summary class="min-h-9 py-2 max-md:min-h-11">Figures</summary>
      <div class="overflow-x-auto" tabindex="0" role="region" aria-label="Figures of the sharing">
        <table class="w-full text-xs">
          <thead>
            <tr class="text-left text-soft">
              <th class="px-2 py-1 font-normal">Charge of the lithium, %</th>
              <template v-for="s in states" :key="s.words"
                ><th v-for="b in batteries" :key="b.name" class="px-2 py-1 text-right font-normal">
                  {{ b.name }}, {{ s.words }}, A
                </th></template
              >
            </tr>
          </thead>
          <tbody>
            <tr v-for="(row, i) in states[0].rows" :key="row.soc" class="border-t border-line">
              <th scope="row" class="px-2 py-0.5 text-left font-normal">{{ Math.round(row.soc * 100) }}</th>
              <template v-for="s in states" :key="s.words"
                ><td v-for="b in batteries" :key="b.name" class="px-2 py-0.5 text-right">
                  {{ n(b.amps(s.rows[i]!), 'A') }}
                </td></template
              >
            </tr>
          </tbody>
        </table>
      </div>
    </details>
  </section>
</template>
