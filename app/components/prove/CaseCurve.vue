<script setup lang="ts">
import { LineChart } from 'echarts/charts'
import { GridComponent, MarkLineComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import VChart from 'vue-echarts'
import { caseLimitC } from '#core/physics/alternator'
import type { ShownTest } from '#core/diagnosis/shown'
import type { Streamed } from '#core/diagnosis/stream'
import type { EngineClient } from '../../engine/client'
import type { CaseCurve } from '../../engine/prover'

/** The case temperature against the expected one, with a stop before its limit. */
const props = defineProps<{ test: ShownTest; readings: readonly Streamed[]; engine: EngineClient }>()
const emit = defineEmits<{ limit: [] }>()
use([LineChart, GridComponent, MarkLineComponent, SVGRenderer])
const { q } = useWriting()
const theme = useThemeColours()
const curve = shallowRef<CaseCurve | null>(null)
watch(
  () => props.test.id,
  async (id) => {
    curve.value = await props.engine.caseCurve(id)
  },
  { immediate: true },
)
/** The test is stopped so near the limit, K. */
const shortOfK = 3
const stopped = computed(() => (props.readings.at(-1)?.value ?? 0) >= caseLimitC - shortOfK)
watch(stopped, (now) => {
  if (now) emit('limit')
})
const option = computed(() => {
  const points = curve.value?.points ?? []
  const line = (data: readonly (readonly [number, number])[], colour: string, more = {}) => ({
    type: 'line',
    showSymbol: false,
    animation: false,
    lineStyle: { color: colour, width: 1.5 },
    data,
    ...more,
  })
  const dashed = { lineStyle: { color: theme.value.suits, width: 1, type: 'dashed' } }
  return {
    animation: false,
    textStyle: { fontFamily: chartFont },
    grid: { left: 50, right: 18, top: 12, bottom: 24 },
    xAxis: {
      type: 'value',
      min: 0,
      max: 30,
      axisLabel: { formatter: (m: number) => `${m} min`, color: theme.value.soft },
      splitLine: { show: false },
    },
    yAxis: {
      type: 'value',
      min: (of: { min: number }) => Math.floor(of.min / 10) * 10,
      max: caseLimitC + 10,
      axisLabel: { formatter: (c: number) => `${c} °C`, color: theme.value.soft },
      splitLine: { lineStyle: { color: theme.value.line } },
    },
    series: [
      line(
        points.map(({ minutes, celsius, within }) => [minutes, celsius - within]),
        theme.value.suits,
        dashed,
      ),
      line(
        points.map(({ minutes, celsius, within }) => [minutes, celsius + within]),
        theme.value.suits,
        dashed,
      ),
      line(
        points.map(({ minutes, celsius }) => [minutes, celsius]),
        theme.value.suits,
        {
          markLine: {
            silent: true,
            symbol: 'none',
            lineStyle: { color: theme.value.bad, type: 'solid' },
            label: { formatter: 'limit', position: 'insideEndTop', color: theme.value.bad },
            data: [{ yAxis: caseLimitC }],
          },
        },
      ),
      line(
        props.readings.map(({ t, value }) => [t / 60, value]),
        theme.value.ink,
        { lineStyle: { color: theme.value.ink, width: 2.5 } },
      ),
    ],
  }
})
const said = computed(() => {
  const last = props.readings.at(-1)
  return last
    ? `${q(last.value, '°C')} after ${q(Math.round(last.t / 60), 'min')}; the limit is ${caseLimitC} °C`
    : 'The way the case should warm over half an hour'
})
</script>

<template>
  <div>
    <div
      role="img"
      :aria-label="said"
      class="h-48 w-full"
      data-testid="case-curve"
      :data-readings="readings.length"
    >
      <VChart :option="option" autoresize class="h-full w-full" />
    </div>
    <p v-if="stopped" role="alert" class="font-semibold text-bad">
      Stop: the case comes near {{ caseLimitC }} °C. Take the load off and let it cool.
    </p>
  </div>
</template>
