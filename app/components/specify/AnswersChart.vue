<script setup lang="ts">
import { ScatterChart } from 'echarts/charts'
import { GridComponent, LegendComponent, TooltipComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { CanvasRenderer } from 'echarts/renderers'
import VChart from 'vue-echarts'
import { isSure, type Answer } from '#core/solve/answer'
import { runDays } from '#core/solve/evaluate'

/** Cost against hours to full; the sure ones filled, the others hollow. */
const props = defineProps<{ answers: readonly Answer[]; current: string | null }>()
const emit = defineEmits<{ select: [id: string] }>()
const { q, units } = useWriting()
const colours = useThemeColours()
use([ScatterChart, GridComponent, LegendComponent, TooltipComponent, CanvasRenderer])

/** An answer that never fills is drawn at the end of the simulated days. */
const pointOf = ({ id, name, figures }: Answer) => ({
  name,
  id,
  value: [Math.round(figures.cost), figures.hoursToFull ?? runDays * 24],
  symbolSize: id === props.current ? 18 : 12,
})
/** A point that was pressed: the answers are in the order of the series. */
const pick = ({ data }: { readonly data?: unknown }) => {
  const id = (data as { readonly id?: string } | null)?.id
  if (id !== undefined) emit('select', id)
}
const option = computed(() => {
  const { ink, soft, line, sea, changed } = colours.value
  const axis = {
    nameTextStyle: { color: soft },
    axisLabel: { color: soft },
    splitLine: { lineStyle: { color: line } },
  }
  const series = (
    title: string,
    list: readonly Answer[],
    colour: string,
    symbol: string,
    hollow: boolean,
  ) => ({
    name: title,
    type: 'scatter' as const,
    symbol,
    data: list.map(pointOf),
    itemStyle: { color: hollow ? 'transparent' : colour, borderColor: colour, borderWidth: 2 },
  })
  return {
    animation: false,
    textStyle: { fontFamily: chartFont },
    grid: { left: 48, right: 20, top: 64, bottom: 44 },
    legend: {
      top: 0,
      left: 0,
      itemWidth: 14,
      itemHeight: 12,
      textStyle: { color: ink },
      selectedMode: false,
    },
    tooltip: {
      formatter: ({ name, value }: { name: string; value: readonly number[] }) =>
        `${name}<br>${q(value[0]!, 'money')}, ${q(value[1]!, 'h')} to full`,
    },
    xAxis: {
      ...axis,
      type: 'value' as const,
      name: `Cost, ${units.value.currency}`,
      nameLocation: 'middle' as const,
      nameGap: 28,
      scale: true,
    },
    yAxis: { ...axis, type: 'value' as const, name: 'Hours to full', nameGap: 12, min: 0 },
    series: [
      series('Sure', props.answers.filter(isSure), sea, 'circle', false),
      series(
        'If something is measured',
        props.answers.filter((a) => !isSure(a)),
        changed,
        'diamond',
        true,
      ),
    ],
  }
})
</script>

<template>
  <figure class="min-w-0 border border-line bg-card p-3">
    <figcaption class="font-semibold">Cost against hours to full</figcaption>
    <div
      role="img"
      :aria-label="`Cost against hours to full of ${answers.length} answers; the table has the figures`"
      class="h-72 w-full"
    >
      <VChart :option="option" autoresize class="h-full w-full" @click="pick" />
    </div>
  </figure>
</template>
