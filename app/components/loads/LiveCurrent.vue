<script setup lang="ts">
import { LineChart } from 'echarts/charts'
import { GridComponent, MarkLineComponent, TooltipComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import { useThrottleFn } from '@vueuse/core'
import VChart from 'vue-echarts'
import type { Reading, CurrentStep } from '#core/loads/detect'

const { q } = useWriting()
use([LineChart, GridComponent, TooltipComponent, MarkLineComponent, SVGRenderer])

/** The load current of the last minutes, with the steps that were found. */
const props = defineProps<{ readings: readonly Reading[]; count: number; steps: readonly CurrentStep[] }>()
const shownS = 180
const theme = useThemeColours()
const option = shallowRef<Record<string, unknown>>({})
const draw = useThrottleFn(
  () => {
    const end = props.readings.at(-1)?.t ?? 0
    const from = Math.max(0, end - shownS)
    const recent = props.readings.filter((reading) => reading.t >= from)
    option.value = {
      animation: false,
      grid: { left: 46, right: 12, top: 24, bottom: 26 },
      textStyle: { fontFamily: chartFont },
      xAxis: {
        type: 'value',
        min: from,
        max: Math.max(end, from + 30),
        axisLabel: {
          formatter: (t: number) => `${Math.floor(t / 60)}:${String(Math.round(t % 60)).padStart(2, '0')}`,
          color: theme.value.soft,
        },
        splitLine: { show: false },
      },
      yAxis: {
        type: 'value',
        axisLabel: { formatter: (a: number) => `${a} A`, color: theme.value.soft },
        splitLine: { lineStyle: { color: theme.value.line } },
      },
      tooltip: { trigger: 'axis', valueFormatter: (a: unknown) => q(Number(a), 'A') },
      series: [
        {
          type: 'line',
          name: 'drawn',
          showSymbol: false,
          lineStyle: { width: 1.6, color: theme.value.sea },
          data: recent.map(({ t, amps }) => [t, Math.round(-amps * 100) / 100]),
          markLine: {
            silent: true,
            symbol: 'none',
            animation: false,
            lineStyle: { color: theme.value.rope, type: 'dashed' },
            label: { formatter: (at: { name: string }) => at.name, color: theme.value.ink, fontSize: 11 },
            data: props.steps
              .filter((s) => s.t >= from)
              .map((s) => ({ xAxis: s.t, name: `${s.deltaA > 0 ? '+' : '−'}${q(Math.abs(s.deltaA), 'A')}` })),
          },
        },
      ],
    }
  },
  250,
  true,
)
watch([() => props.count, () => props.steps, theme], draw, { immediate: true })
const said = computed(() => `Load current over the last minutes; ${props.steps.length} steps found`)
</script>

<template>
  <div role="img" :aria-label="said" class="h-48 w-full">
    <VChart :option="option" autoresize class="h-full w-full" />
  </div>
</template>
