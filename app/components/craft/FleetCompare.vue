<script setup lang="ts">
import { logQuantity, readingName } from '#core/logbook/quantities'
import { seriesOf, type Series } from '#core/logbook/series'
import type { LogEntry } from '#core/logbook/entry'
import { resolveRules } from '#core/rules/rules'
import { read } from '../../utils/api'
import { shownDay, type FleetRow } from '../../utils/craft'

/** Last readings of craft that are alike, next to each other. */
const props = defineProps<{
  craft: { id: string; name: string }
  fleet: readonly FleetRow[]
  own: readonly Series[]
}>()
const { q } = useWriting()
const shop = useShop()
const others = shallowRef<ReadonlyMap<string, readonly Series[]>>(new Map())
const mostCompared = 30
onMounted(async () => {
  const rules = resolveRules(shop.shop.rules)
  const all = await Promise.all(
    props.fleet.slice(0, mostCompared).map(async ({ id }) => {
      const answer = await read<readonly LogEntry[]>(`/api/craft/${id}/log`)
      return [id, answer.kind === 'ok' ? seriesOf(answer.data, rules) : []] as const
    }),
  )
  others.value = new Map(all)
})
const columns = computed(() => [
  { id: props.craft.id, name: props.craft.name, series: props.own },
  ...props.fleet
    .slice(0, mostCompared)
    .map(({ id, name }) => ({ id, name, series: others.value.get(id) ?? [] })),
])
const rows = computed(() => {
  const found = new Map(columns.value.flatMap(({ series }) => series.map((one) => [one.id, one] as const)))
  return [...found.values()].map((one) => ({
    id: one.id,
    label: readingName(one.quantity, one.subject),
    cells: columns.value.map(({ id, series }) => {
      const last = series.find((other) => other.id === one.id)?.readings.at(-1)
      return {
        id,
        value: last ? q(last.value, logQuantity(one.quantity).unit, true) : '–',
        day: last?.entry.at,
      }
    }),
  }))
})
</script>

<template>
  <div class="overflow-x-auto border-y border-line bg-card" role="region" aria-label="Fleet" tabindex="0">
    <table class="w-full">
      <thead>
        <tr class="border-b border-line text-left text-xs text-soft">
          <th class="px-3 py-2 font-normal">Last reading</th>
          <th v-for="column in columns" :key="column.id" class="px-3 py-2 text-right font-normal">
            <NuxtLink :to="`/craft/${column.id}`" class="underline">{{
              column.name || 'Unnamed craft'
            }}</NuxtLink>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.id" class="border-line not-first:border-t">
          <th class="px-3 py-1.5 text-left font-normal">{{ row.label }}</th>
          <td v-for="cell in row.cells" :key="cell.id" class="px-3 py-1.5 text-right whitespace-nowrap">
            {{ cell.value
            }}<span v-if="cell.day" class="block text-xs text-soft">{{ shownDay(cell.day) }}</span>
          </td>
        </tr>
        <tr v-if="rows.length === 0">
          <td :colspan="columns.length + 1" class="px-3 py-4 text-center text-soft">No readings yet.</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
