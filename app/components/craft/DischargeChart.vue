<script setup lang="ts">
import { LineChart } from 'echarts/charts'
import { GridComponent, LegendComponent, MarkLineComponent, TooltipComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { CanvasRenderer } from 'echarts/renderers'
import VChart from 'vue-echarts'
import type { DischargePoint } from '#core/logbook/discharge'
import type { Reading } from '#core/loads/detect'

use([LineChart, GridComponent, LegendComponent, MarkLineComponent, TooltipComponent, CanvasRenderer])

/** Voltage of a discharge or a start over time: predicted, as it is read, and the floor. */
const props = defineProps<{
  predicted: readonly DischargePoint[]
  readings: readonly Reading[]
  floorV: number
  /** Seconds of one step of the time axis: 3600 for hours. */
  perUnit: 1 | 3600
}>()
const { q } = useWriting()
const colours = useThemeColours()
const most = 600
/** Few enough to draw. */
const thinned = computed(() => {
  const step = Math.max(1, Math.ceil(props.readings.length / most))
  return props.readings.filter((_, i) => i % step === 0 || i === props.readings.length - 1)
})
const option = computed(() => ({
  animation: false,
  textStyle: { fontFamily: chartFont },
  legend: { top: 0, right: 8, textStyle: { color: colours.value.ink } },
  grid: { left: 56, right: 16, top: 30, bottom: 30 },
  tooltip: { trigger: 'axis', valueFormatter: (value: unknown) => q(Number(value), 'V') },
  xAxis: {
    type: 'value',
    min: 0,
    max: Math.max(props.predicted.at(-1)?.t ?? 0, props.readings.at(-1)?.t ?? 0, 1) / props.perUnit,
    axisLabel: {
      color: colours.value.soft,
      showMaxLabel: false,
      formatter: (value: number) => `${Number(value.toFixed(1))} ${props.perUnit === 1 ? 's' : 'h'}`,
    },
    splitLine: { show: false },
  },
  yAxis: {
    type: 'value',
    scale: true,
    axisLabel: { color: colours.value.soft, formatter: (value: number) => `${Number(value.toFixed(2))} V` },
    splitLine: { lineStyle: { color: colours.value.line } },
  },
  series: [
    {
      name: 'Predicted',
      type: 'line',
      showSymbol: false,
      lineStyle: { color: colours.value.rope, type: 'dashed' },
      itemStyle: { color: colours.value.rope },
      data: props.predicted.map(({ t, volts }) => [t / props.perUnit, volts]),
      markLine: {
        symbol: 'none',
        silent: true,
        lineStyle: { color: colours.value.bad, type: 'dashed' },
        label: {
          formatter: `floor ${q(props.floorV, 'V')}`,
          position: 'insideStartTop',
          color: colours.value.bad,
        },
        data: [{ yAxis: props.floorV }],
      },
    },
    {
      name: 'Read',
      type: 'line',
      showSymbol: false,
      lineStyle: { color: colours.value.sea, width: 2 },
      itemStyle: { color: colours.value.sea },
      data: thinned.value.map(({ t, volts }) => [t / props.perUnit, volts]),
    },
  ],
}))
</script>

<template>
  <div class="h-64 w-full">
    <VChart :option="option" autoresize role="img" aria-label="Chart: voltage over time" />
  </div>
</template>
