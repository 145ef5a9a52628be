<script setup lang="ts">
import { LineChart, ScatterChart } from 'echarts/charts'
import { GridComponent, MarkLineComponent, TooltipComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { CanvasRenderer } from 'echarts/renderers'
import VChart from 'vue-echarts'
import { logQuantity } from '#core/logbook/quantities'
import type { Series } from '#core/logbook/series'
import { yearMs } from '#core/logbook/trend'
import { shownDay } from '../../utils/craft'

use([LineChart, ScatterChart, GridComponent, MarkLineComponent, TooltipComponent, CanvasRenderer])

/** Readings over the years, with their trend and the shop’s limit. */
const props = defineProps<{ series: Series }>()
const { q, n } = useWriting()
const colours = useThemeColours()

const line = computed(() => {
  const { trend, readings } = props.series
  if (trend.kind !== 'line' || !trend.isMoving) return []
  const times = readings.map(({ at }) => at)
  const [first, last] = [Math.min(...times), Math.max(...times, Date.now()) + yearMs]
  return [first, last].map((at) => [at, trend.valueAt(at)])
})
const option = computed(() => {
  const { readings, limit, quantity } = props.series
  const { unit } = logQuantity(quantity)
  const values = [...readings.map(({ value }) => value), ...(limit ? [limit.value] : [])]
  const [least, most] = [Math.min(...values), Math.max(...values)]
  const room = Math.max((most - least) * 0.12, Math.abs(most) * 0.02, 0.001)
  return {
    animation: false,
    textStyle: { fontFamily: chartFont },
    grid: { left: 58, right: 16, top: 12, bottom: 24 },
    tooltip: {
      trigger: 'item',
      formatter: ({ value }: { value: [number, number] }) =>
        `${shownDay(new Date(value[0]).toISOString())}: ${q(value[1], unit, true)}`,
    },
    xAxis: {
      type: 'time',
      minInterval: yearMs / 12,
      axisLabel: { color: colours.value.soft, hideOverlap: true },
      axisLine: { lineStyle: { color: colours.value.line } },
    },
    yAxis: {
      type: 'value',
      min: least - room,
      max: most + room,
      axisLabel: {
        color: colours.value.soft,
        formatter: (value: number) => n(value, unit),
        showMinLabel: false,
        showMaxLabel: false,
      },
      splitLine: { lineStyle: { color: colours.value.line } },
    },
    series: [
      {
        type: 'scatter',
        symbolSize: 8,
        itemStyle: { color: colours.value.sea },
        data: readings.map(({ at, value }) => [at, value]),
        ...(limit && {
          markLine: {
            symbol: 'none',
            silent: true,
            label: {
              formatter: `limit ${q(limit.value, unit)}`,
              position: 'insideStartTop',
              color: colours.value.bad,
            },
            lineStyle: { color: colours.value.bad, type: 'dashed' },
            data: [{ yAxis: limit.value }],
          },
        }),
      },
      {
        type: 'line',
        symbol: 'none',
        silent: true,
        lineStyle: { color: colours.value.changed, width: 2 },
        data: line.value,
      },
    ],
  }
})
</script>

<template>
  <div class="h-44 w-full">
    <VChart
      :option="option"
      autoresize
      role="img"
      :aria-label="`Chart: ${logQuantity(series.quantity).label}, ${series.subject}`"
    />
  </div>
</template>
