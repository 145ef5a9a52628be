<script setup lang="ts">
import { LineChart } from 'echarts/charts'
import {
  GridComponent,
  LegendComponent,
  MarkAreaComponent,
  MarkLineComponent,
  TooltipComponent,
} from 'echarts/components'
import { format, use } from 'echarts/core'
import { CanvasRenderer } from 'echarts/renderers'
import VChart from 'vue-echarts'
import { caseLimitC } from '#core/physics/alternator'
import { channels, type ChannelId } from '#core/simulation/record'
import type { RunResult } from '#core/simulation/runs'

const { q } = useWriting()
use([
  LineChart,
  GridComponent,
  TooltipComponent,
  LegendComponent,
  MarkAreaComponent,
  MarkLineComponent,
  CanvasRenderer,
])

/**
 * A run on one timeline, in four bands: charge, currents, voltages, temperatures. With several runs, one line each
 * for the differing values.
 */
const props = defineProps<{ results: readonly RunResult[]; titles: readonly string[]; at: number }>()
const emit = defineEmits<{ point: [t: number] }>()
const colours = useThemeColours()
const margin = { left: 52, right: 16 }
/** Height of a yes or no row, whose line goes from zero to one. */
const rowHeight = 1.4
const compared = computed(() => props.results.length > 1)
const longS = computed(() => Math.max(1, ...props.results.map((r) => r.totals.hours * 3600)))
const span = computed<RunSpan>(() => ({ run: props.results[0]!.run, hours: longS.value / 3600 }))
const marks = computed(() => timeMarks(span.value))

/** The strip of available sources and allowed charging, in runs about cold. */
const bandsNow = computed(() =>
  props.results.some((r) => r.totals.coldRefusedH > 0) ? bands : bands.filter((band) => band !== coldBand),
)
const bandHeight = computed(() => Math.floor(500 / bandsNow.value.length))
/** Where the first band begins, px: below the names of the systems, and of its lines. */
const bandsFrom = computed(() => (compared.value ? 52 : 36))
/** Total height: the hours are below the last band. */
const chartHeight = computed(() => bandsFrom.value + bandsNow.value.length * bandHeight.value - 4)
/** Hours in which a source would have charged and the cells were too cold or too hot for it, s. */
const refused = computed(() =>
  stretchesOf(
    props.results.flatMap(({ events }) =>
      events.flatMap((event) => (event.kind === 'refused' ? [[event.t, event.untilS] as const] : [])),
    ),
  ),
)
/** Weeks are drawn as a band between the least and the most of each day: hour by hour they would be a blur. */
const byDay = computed(() => longS.value > 14 * 86_400)

/** The data of a drawn channel: `data` in the form of the chart, `values` unchanged. */
interface Trace {
  readonly data: Float64Array
  readonly values: Float64Array
  /** Fills the room up to the trace before. */
  readonly fills: boolean
}
function tracesOf(t: readonly number[], values: readonly number[]): readonly Trace[] {
  if (!byDay.value) {
    const all = pairs(t, values)
    return [{ data: all, values: all, fills: false }]
  }
  const [least, most] = [daily(t, values, Math.min, longS.value), daily(t, values, Math.max, longS.value)]
  return [
    { data: least, values: least, fills: false },
    { data: above(most, least), values: most, fills: true },
  ]
}

interface Line {
  readonly itemStyle: { readonly color: string | undefined }
  readonly tip: {
    readonly id: ChannelId
    readonly row: number
    readonly title: string
    readonly values: Float64Array
  }
}
/**
 * Text at the pointer: a line for each drawn value in each system; for a day its lowest and highest.
 */
function tipOf(t: number, lines: readonly Line[]): string {
  const said = new Map<ChannelId, Map<string, { colour: string; values: number[] }>>()
  for (const {
    itemStyle,
    tip: { id, row, title, values },
  } of lines) {
    const systems = said.get(id) ?? said.set(id, new Map()).get(id)!
    const system =
      systems.get(title) ?? systems.set(title, { colour: itemStyle.color ?? '', values: [] }).get(title)!
    system.values.push(valueAt(values, t) - row)
  }
  const words = (id: ChannelId, value: number): string =>
    !Number.isFinite(value)
      ? '–'
      : channels[id].unit === ''
        ? value > 0.5
          ? 'yes'
          : 'no'
        : q(value, channels[id].unit)
  const cell = (id: ChannelId, system: { colour: string; values: number[] } | undefined): string =>
    `<td class="pl-3 text-right font-semibold">${system ? `<span style="color:${system.colour}">●</span> ${[...new Set(system.values.map((value) => words(id, value)))].join(' to ')}` : ''}</td>`
  const rows = [...said].map(
    ([id, systems]) =>
      `<tr><td class="pr-3">${channels[id].label}</td>${props.titles.map((title) => cell(id, systems.get(title))).join('')}</tr>`,
  )
  const heads = compared.value
    ? `<tr><td></td>${props.titles.map((title) => `<td class="max-w-32 pl-3 text-right align-bottom whitespace-normal">${format.encodeHTML(title)}</td>`).join('')}</tr>`
    : ''
  return `<p class="font-semibold">${momentNow(t)}</p><table>${heads}${rows.join('')}</table>`
}
const momentNow = (t: number): string => (byDay.value ? dayOfRun(t, span.value) : momentOfRun(t, span.value))

/** The name of a row in the yes-and-no band, at its foot. */
const rowName = (value: number): string => looks[yesNoRows[Math.round(value / rowHeight)]!]?.name ?? ''

/** The refused hours, behind the lines. */
const refusedArea = (color: string) => ({
  silent: true,
  itemStyle: { color, opacity: 0.14 },
  data: refused.value.map(([from, until]) => [{ xAxis: from }, { xAxis: until }]),
})

const option = computed(() => {
  const c = colours.value
  const shownBands = bandsNow.value
  const legend = {
    textStyle: { color: c.ink, fontSize: 12 },
    itemWidth: 20,
    itemHeight: 8,
    itemGap: 8,
    type: 'scroll',
    pageIconSize: 10,
    pageTextStyle: { color: c.ink },
  }
  const top = (i: number): number => bandsFrom.value + i * bandHeight.value
  const series = shownBands.flatMap((band, i) =>
    (compared.value ? band.compared : band.alone).flatMap((id) =>
      props.results.flatMap((result, k) => {
        const values = result.series.values[id]
        if (
          !values ||
          ((id === 'mainsA' || id === 'solarA' || id === 'sourceA' || id === 'engineA') &&
            values.every((v) => Math.abs(v) < 0.01))
        )
          return []
        const look = compared.value ? systemLooks[k % systemLooks.length]! : looks[id]!
        const colour = c[look.colour]
        // Yes and no, one row above the other.
        const row = band.unit === '' ? yesNoRows.indexOf(id) * rowHeight : 0
        return tracesOf(result.series.t, row === 0 ? values : values.map((v) => v + row)).map((trace, n) => ({
          type: 'line',
          name: compared.value ? props.titles[k] : channels[id].label,
          xAxisIndex: i,
          yAxisIndex: i,
          showSymbol: false,
          animation: false,
          connectNulls: true,
          lineStyle: { width: byDay.value ? 1 : 1.5, color: colour, type: look.dash },
          itemStyle: { color: colour },
          data: trace.data,
          tip: { id, row, title: props.titles[k]!, values: trace.values },
          ...(byDay.value ? { stack: `${id} ${k}`, stackStrategy: 'all' } : {}),
          ...(trace.fills ? { areaStyle: { color: colour, opacity: 0.18 } } : {}),
          ...(band.unit === '' ? { step: 'end' } : {}),
          ...(id === 'alternatorC' && k === 0 && n === 0
            ? {
                markLine: {
                  silent: true,
                  symbol: 'none',
                  data: [{ yAxis: caseLimitC }],
                  lineStyle: { color: c.bad, type: 'dotted' },
                  label: { formatter: `limit ${caseLimitC} °C`, color: c.bad, position: 'insideEndTop' },
                },
              }
            : {}),
        }))
      }),
    ),
  )
  shownBands.forEach((_, i) => {
    const first = series.find((line) => line.xAxisIndex === i)
    if (first && refused.value.length > 0) Object.assign(first, { markArea: refusedArea(c.measure) })
  })
  return {
    textStyle: { fontFamily: chartFont, color: c.ink },
    axisPointer: { link: [{ xAxisIndex: 'all' }] },
    tooltip: {
      trigger: 'axis',
      formatter: ([point]: readonly { axisValue: number }[]) => tipOf(point!.axisValue, series),
      backgroundColor: c.card,
      borderColor: c.line,
      textStyle: { color: c.ink, fontSize: 12 },
      axisPointer: { label: { formatter: (p: { value: number }) => momentNow(p.value) } },
      confine: true,
    },
    legend: compared.value
      ? { ...legend, top: 0, data: [...props.titles] }
      : shownBands.flatMap((band, i) =>
          band.unit === ''
            ? []
            : [
                {
                  ...legend,
                  top: top(i) - 26,
                  left: margin.left + 124,
                  right: 4,
                  data: [...new Set(series.filter((line) => line.xAxisIndex === i).map((line) => line.name))],
                  formatter: (name: string) => shortNames[name] ?? name,
                },
              ],
        ),
    grid: shownBands.map((_, i) => ({ ...margin, top: top(i), height: bandHeight.value - 32 })),
    xAxis: shownBands.map((_, i) => ({
      type: 'value',
      gridIndex: i,
      min: 0,
      max: longS.value,
      axisLabel: {
        show: i === shownBands.length - 1,
        formatter: marks.value.words,
        customValues: [...marks.value.wordsAt],
        hideOverlap: true,
        color: c.soft,
      },
      splitLine: { show: false },
      axisTick: { show: i === shownBands.length - 1, customValues: [...marks.value.at] },
      axisLine: { lineStyle: { color: c.line } },
    })),
    yAxis: shownBands.map((band, i) => ({
      type: 'value',
      gridIndex: i,
      scale: band.unit !== '%',
      min: band.unit === '%' || band.unit === '' ? 0 : undefined,
      max:
        band.unit === '%'
          ? 100
          : band.unit === ''
            ? compared.value
              ? 1
              : yesNoRows.length * rowHeight - 0.2
            : undefined,
      splitNumber: 3,
      ...(band.unit === '' ? { interval: rowHeight } : band.unit === '%' ? { interval: 50 } : {}),
      name: band.unit ? `${band.title}, ${band.unit}` : band.title,
      nameLocation: 'end',
      nameGap: 10,
      nameTextStyle: { align: 'left', color: c.soft, padding: [0, 0, 0, 6] },
      axisLabel: {
        color: c.soft,
        ...(band.unit === '' ? { formatter: rowName, verticalAlign: 'bottom' } : {}),
      },
      axisTick: { show: band.unit !== '' },
      splitLine: { show: band.unit !== '', lineStyle: { color: c.line } },
    })),
    series,
  }
})
/** The playhead is a separate layer: dragging it does not redraw the chart. */
const playhead = computed(
  () =>
    `calc(${margin.left}px + (100% - ${margin.left + margin.right}px) * ${Math.min(1, props.at / longS.value)})`,
)
const said = computed(
  () =>
    `Timeline of ${props.titles.join(', ')}: charge, currents, voltages and temperatures. The table below holds the figures.`,
)
function click(event: { value?: unknown }) {
  if (Array.isArray(event.value)) emit('point', Number(event.value[0]))
}
</script>

<template>
  <div>
    <div role="img" :aria-label="said" class="relative w-full" :style="{ height: `${chartHeight}px` }">
      <VChart
        :option="option"
        autoresize
        class="h-full w-full"
        :update-options="{ notMerge: true }"
        @click="click"
      />
      <div
        class="pointer-events-none absolute top-12 bottom-6 w-px bg-ink"
        :style="{ left: playhead }"
        data-testid="playhead"
      />
    </div>
    <p v-if="byDay" class="px-2 text-xs text-soft">
      Each band runs from the lowest to the highest value of the day.
    </p>
    <p v-if="refused.length" class="flex items-center gap-2 px-2 text-xs text-soft">
      <span aria-hidden="true" class="h-3 w-5 bg-measure/20" />Shaded: a source would charge, but the cells
      are too cold or too hot.
    </p>
  </div>
</template>
