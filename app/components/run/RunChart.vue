<script setup lang="ts">
import { LineChart } from 'echarts/charts'
import { GridComponent, LegendComponent, MarkLineComponent, TooltipComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { CanvasRenderer } from 'echarts/renderers'
import VChart from 'vue-echarts'
import { caseLimitC } from '../../../core/physics/alternator'
import { channels, type ChannelId } from '../../../core/simulation/record'
import type { RunResult } from '../../../core/simulation/runs'

use([LineChart, GridComponent, TooltipComponent, LegendComponent, MarkLineComponent, CanvasRenderer])

/** A run on one timeline, in four bands: charge, currents, voltages, temperatures. Several runs: one line each for what tells them apart. */
const props = defineProps<{ results: readonly RunResult[]; titles: readonly string[]; at: number }>()
const emit = defineEmits<{ point: [t: number] }>()
const colours = useThemeColours()
const bands: readonly { readonly title: string; readonly unit: string; readonly alone: readonly ChannelId[]; readonly compared: readonly ChannelId[] }[] = [
  { title: 'Charge', unit: '%', alone: ['soc', 'leadSoc', 'startSoc'], compared: ['soc', 'leadSoc'] },
  { title: 'Currents', unit: 'A', alone: ['engineA', 'mainsA', 'solarA', 'sourceA', 'loadA', 'lfpA', 'leadA'], compared: ['engineA'] },
  { title: 'Voltages', unit: 'V', alone: ['houseV', 'startV'], compared: ['houseV'] },
  { title: 'Temperatures', unit: '°C', alone: ['alternatorC', 'cellC', 'placeC'], compared: ['alternatorC', 'cellC'] },
  { title: 'Charge wanted and allowed', unit: '', alone: ['allowed', 'sunThere', 'engineThere', 'mainsThere'], compared: ['allowed'] },
]
const rows: readonly ChannelId[] = ['allowed', 'sunThere', 'engineThere', 'mainsThere']
/** The same colour and dash for the same thing everywhere; readable without colour. */
const looks = computed((): Readonly<Partial<Record<ChannelId, { colour: string; dash: 'solid' | 'dashed' | 'dotted' }>>> => {
  const c = colours.value
  return {
    soc: { colour: c.sea, dash: 'solid' }, leadSoc: { colour: c.changed, dash: 'dashed' }, startSoc: { colour: c.soft, dash: 'dotted' },
    engineA: { colour: c.bad, dash: 'solid' }, mainsA: { colour: c.sea, dash: 'dashed' }, solarA: { colour: c.changed, dash: 'solid' }, sourceA: { colour: c.suits, dash: 'dashed' }, loadA: { colour: c.ink, dash: 'dotted' }, lfpA: { colour: c.measure, dash: 'solid' }, leadA: { colour: c.changed, dash: 'dashed' },
    houseV: { colour: c.sea, dash: 'solid' }, startV: { colour: c.bad, dash: 'dashed' }, alternatorC: { colour: c.bad, dash: 'solid' }, cellC: { colour: c.measure, dash: 'solid' }, placeC: { colour: c.soft, dash: 'dotted' }, sunThere: { colour: c.changed, dash: 'solid' }, engineThere: { colour: c.bad, dash: 'solid' }, mainsThere: { colour: c.sea, dash: 'solid' }, allowed: { colour: c.suits, dash: 'solid' },
  }
})
const variantColours = computed(() => [colours.value.bad, colours.value.sea, colours.value.changed, colours.value.measure, colours.value.suits])
const margin = { left: 52, right: 16 }
const dashes = ['solid', 'dashed', 'dotted', 'solid', 'dashed'] as const
const compared = computed(() => props.results.length > 1)
const longS = computed(() => Math.max(1, ...props.results.map((r) => r.totals.hours * 3600)))
const clock = (t: number): string => (longS.value > 3 * 86_400 ? dayOfRun(t) : hourOfRun(t))

/** The strip of what would charge and what the cells allow, where the cold is what is asked about. */
const bandsNow = computed(() => (props.results.some((r) => r.totals.coldRefusedH > 0) ? bands : bands.filter((band) => band.title !== 'Charge wanted and allowed')))
const bandHeight = computed(() => Math.floor(500 / bandsNow.value.length))
/** Round hours, or days, under the timeline: at most eight of them. */
const tickS = computed(() => 3600 * [1, 2, 3, 6, 12, 24, 48, 96, 168, 336, 720, 1440].find((h) => longS.value / 3600 / h <= 8)!)

const option = computed(() => {
  const c = colours.value
  const shownBands = bandsNow.value
  const top = (i: number): number => 52 + i * bandHeight.value
  const series = shownBands.flatMap((band, i) => (compared.value ? band.compared : band.alone).flatMap((id) => props.results.flatMap((result, k) => {
    const values = result.series.values[id]
    if (!values || ((id === 'mainsA' || id === 'solarA' || id === 'sourceA' || id === 'engineA') && values.every((v) => Math.abs(v) < 0.01))) return []
    const look = looks.value[id]!
    // Yes and no, one row above the other.
    const row = band.unit === '' ? rows.indexOf(id) * 1.4 : 0
    return [{
      type: 'line', name: compared.value ? props.titles[k] : channels[id].label, xAxisIndex: i, yAxisIndex: i, showSymbol: false, animation: false, connectNulls: true, ...(band.unit === '' ? { endLabel: { show: !compared.value, formatter: channels[id].label, color: look.colour, align: 'right', offset: [0, -8], fontSize: 11 } } : {}),
      lineStyle: { width: 1.5, color: compared.value ? variantColours.value[k] : look.colour, type: compared.value ? dashes[k] : look.dash }, itemStyle: { color: compared.value ? variantColours.value[k] : look.colour },
      data: result.series.t.map((t, n) => [t, Number.isFinite(values[n]!) ? Math.round((values[n]! + row) * 100) / 100 : null]),
      tooltip: { valueFormatter: (v: unknown) => (v == null ? '–' : band.unit === '' ? (Number(v) - row > 0.5 ? 'yes' : 'no') : `${Number(v)} ${band.unit}`) }, ...(band.unit === '' ? { step: 'end' } : {}),
      ...(id === 'alternatorC' && k === 0 ? { markLine: { silent: true, symbol: 'none', data: [{ yAxis: caseLimitC }], lineStyle: { color: c.bad, type: 'dotted' }, label: { formatter: `limit ${caseLimitC} °C`, color: c.bad, position: 'insideEndTop' } } } : {}),
    }]
  })))
  return {
    textStyle: { fontFamily: 'Atkinson Hyperlegible Next Variable, sans-serif', color: c.ink },
    axisPointer: { link: [{ xAxisIndex: 'all' }] },
    tooltip: { trigger: 'axis', backgroundColor: c.card, borderColor: c.line, textStyle: { color: c.ink, fontSize: 12 }, axisPointer: { label: { formatter: (p: { value: number }) => clock(p.value) } }, confine: true },
    legend: { top: 0, data: compared.value ? [...props.titles] : [...new Set(series.map((line) => line.name))], textStyle: { color: c.ink, fontSize: 12 }, itemWidth: 26, itemHeight: 8, type: 'scroll' },
    grid: shownBands.map((_, i) => ({ ...margin, top: top(i), height: bandHeight.value - 32 })),
    xAxis: shownBands.map((_, i) => ({ type: 'value', gridIndex: i, min: 0, max: longS.value, interval: tickS.value, axisLabel: { show: i === shownBands.length - 1, formatter: clock, color: c.soft }, splitLine: { show: false }, axisTick: { show: i === shownBands.length - 1 }, axisLine: { lineStyle: { color: c.line } } })),
    yAxis: shownBands.map((band, i) => ({ type: 'value', gridIndex: i, scale: band.unit !== '%', min: band.unit === '%' || band.unit === '' ? 0 : undefined, max: band.unit === '%' ? 100 : band.unit === '' ? (compared.value ? 1 : 5.4) : undefined, splitNumber: 3, ...(band.unit === '' ? { interval: 9 } : band.unit === '%' ? { interval: 50 } : {}), name: band.unit ? `${band.title}, ${band.unit}` : band.title, nameLocation: 'end', nameGap: 6, nameTextStyle: { align: 'left', color: c.soft, padding: [0, 0, 0, -44] }, axisLabel: { color: c.soft, ...(band.unit === '' ? { show: false } : {}) }, splitLine: { lineStyle: { color: c.line } } })),
    series,
  }
})
/** The playhead lies over all bands and moves by itself: dragging it does not draw the chart anew. */
const playhead = computed(() => `calc(${margin.left}px + (100% - ${margin.left + margin.right}px) * ${Math.min(1, props.at / longS.value)})`)
const said = computed(() => `Timeline of ${props.titles.join(', ')}: charge, currents, voltages and temperatures. The figures stand in the table below.`)
function click(event: { value?: unknown }) {
  if (Array.isArray(event.value)) emit('point', Number(event.value[0]))
}
</script>

<template>
  <div role="img" :aria-label="said" class="relative h-[34rem] w-full">
    <VChart :option="option" autoresize class="h-full w-full" :update-options="{ notMerge: true }" @click="click" />
    <div class="pointer-events-none absolute top-12 bottom-6 w-px bg-ink" :style="{ left: playhead }" data-testid="playhead" />
  </div>
</template>
