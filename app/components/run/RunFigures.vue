<script setup lang="ts">
import { channelIds, channels } from '#core/simulation/record'
import type { RunResult } from '#core/simulation/runs'

/** Figures of the chart, some fifty rows of them; written out only while they are open. */
const { n } = useWriting()
const { result } = defineProps<{ result: RunResult }>()
const open = ref(false)
const ids = computed(() => channelIds.filter((id) => result.series.values[id]))
const rows = computed(() => {
  const { t } = result.series
  const step = Math.max(1, Math.floor(t.length / 48))
  return t.map((at, i) => ({ at, i })).filter(({ i }) => i % step === 0)
})
</script>

<template>
  <details @toggle="open = ($event.target as HTMLDetailsElement).open">
    <summary class="min-h-9 py-2 max-md:min-h-11">Figures of the chart</summary>
    <div
      v-if="open"
      class="max-h-96 overflow-auto border border-line bg-card"
      tabindex="0"
      role="region"
      aria-label="Figures"
    >
      <table class="w-full text-xs">
        <thead>
          <tr class="text-left text-soft">
            <th class="px-2 py-1 font-normal">Time</th>
            <th v-for="id in ids" :key="id" class="px-2 py-1 font-normal">
              {{ channels[id].label }}, {{ channels[id].unit }}
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="{ at, i } in rows" :key="i" class="border-t border-line">
            <th scope="row" class="px-2 py-0.5 text-left font-normal whitespace-nowrap">
              {{ momentOfRun(at, spanOfRun(result)) }}
            </th>
            <td v-for="id in ids" :key="id" class="px-2 py-0.5 text-right">
              {{ n(result.series.values[id]![i]!, channels[id].unit === 'V' ? 'V' : 'A') }}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </details>
</template>
