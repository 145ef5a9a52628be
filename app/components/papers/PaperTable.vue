<script setup lang="ts">
import type { Block } from '#core/papers/blocks'

/** A table of a paper, with its sums. */
const { table } = defineProps<{ table: Extract<Block, { kind: 'table' }> }>()
const aligned = (column: number) =>
  table.columns[column]!.right ? 'text-right whitespace-nowrap' : 'text-left'
</script>

<template>
  <div class="overflow-x-auto" tabindex="0" role="region" :aria-label="table.name">
    <table class="w-full">
      <thead>
        <tr class="text-xs text-soft">
          <th
            v-for="(column, i) in table.columns"
            :key="column.title"
            class="py-1 pr-2 font-normal last:pr-0"
            :class="aligned(i)"
          >
            {{ column.title }}
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(row, r) in table.rows" :key="r" class="border-t border-line align-top">
          <td v-for="(cell, i) in row" :key="i" class="py-1 pr-2 last:pr-0" :class="aligned(i)">
            {{ cell }}
          </td>
        </tr>
        <tr
          v-for="({ label, value }, s) in table.sums"
          :key="label"
          class="border-t"
          :class="s === table.sums.length - 1 ? 'border-ink font-semibold' : 'border-line'"
        >
          <td :colspan="table.columns.length - 1" class="py-1">{{ label }}</td>
          <td class="py-1 text-right whitespace-nowrap">{{ value }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
