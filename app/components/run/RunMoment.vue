<script setup lang="ts">
import { channels, type ChannelId } from '#core/simulation/record'
import type { RunResult } from '#core/simulation/runs'
import { capital } from '#core/units/format'

/** The state at the playhead in words: currents and meter readings. */
const { q } = useWriting()
const props = defineProps<{ results: readonly RunResult[]; titles: readonly string[]; at: number }>()

/** Value of a channel at the playhead; null if the system has none. */
type ValueOf = (id: ChannelId) => number | null
function momentOf({ series: { t, values } }: RunResult): ValueOf {
  const found = t.findIndex((time) => time > props.at)
  const next = found < 0 ? t.length - 1 : found
  const last = Math.max(0, found < 0 ? next : next - 1)
  const share = next === last ? 0 : Math.max(0, (props.at - t[last]!) / (t[next]! - t[last]!))
  return (id) => {
    const [before, after] = [values[id]?.[last], values[id]?.[next]]
    if (before === undefined || after === undefined || !Number.isFinite(before) || !Number.isFinite(after))
      return null
    return before + (after - before) * share
  }
}

/** Sources by channel; the sign of currents into batteries and loads is reversed. */
const flows: readonly (readonly [string, ChannelId, 1 | -1])[] = [
  ['the engine', 'engineA', 1],
  ['mains', 'mainsA', 1],
  ['the sun', 'solarA', 1],
  ['other sources', 'sourceA', 1],
  ['the lithium', 'lfpA', -1],
  ['the lead', 'leadA', -1],
  ['the loads', 'loadA', -1],
]
function feedingOf(valueOf: ValueOf): string {
  const found = flows
    .map(([who, id, sign]) => ({ who, amps: sign * (valueOf(id) ?? 0) }))
    .filter(({ amps }) => Math.abs(amps) > 0.05)
  const say = (list: typeof found) =>
    list.map(({ who, amps }) => `${who} ${q(Math.abs(amps), 'A')}`).join(', ')
  if (found.length === 0) return 'Nothing flows.'
  const from = say(found.filter(({ amps }) => amps > 0)) || 'nothing'
  const to = say(found.filter(({ amps }) => amps < 0)) || 'nothing'
  return `${capital(from)} → ${to}.`
}

const meters: readonly (readonly [string, ChannelId])[] = [
  ['lithium', 'soc'],
  ['house lead', 'leadSoc'],
  ['house', 'houseV'],
  ['starting side', 'startV'],
  ['alternator', 'alternatorC'],
  ['cells', 'cellC'],
]
const readingOf = (valueOf: ValueOf): string =>
  meters
    .flatMap(([what, id]) => {
      const value = valueOf(id)
      return value === null ? [] : [`${what} ${q(value, channels[id].unit)}`]
    })
    .join(', ')

const moments = computed(() =>
  props.results.map((result) => {
    const valueOf = momentOf(result)
    return { feeding: feedingOf(valueOf), reading: readingOf(valueOf) }
  }),
)
</script>

<template>
  <div class="px-2 pb-1" aria-live="polite">
    <p v-for="({ feeding, reading }, k) in moments" :key="k" :class="results.length > 1 && 'mt-1'">
      <span v-if="results.length > 1" class="font-semibold">{{ titles[k] }}: </span>
      <span :data-testid="k === 0 ? 'feeding' : undefined">{{ feeding }}</span>
      <span class="block text-xs text-soft">{{ reading }}</span>
    </p>
  </div>
</template>
