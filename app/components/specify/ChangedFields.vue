<script setup lang="ts">
import type { ChangedField } from '#core/job/shown'
import { inSentence } from '#core/units/format'

/** As found against as specified, field by field. */
defineProps<{ rows: readonly ChangedField[]; from?: string; to?: string }>()
</script>

<template>
  <div
    class="overflow-x-auto"
    tabindex="0"
    role="region"
    aria-label="As found and as specified, field by field"
  >
    <table class="w-full text-xs">
      <thead>
        <tr class="text-left text-soft">
          <th class="py-1 pr-3 font-normal">Value</th>
          <th class="py-1 pr-3 font-normal">{{ from ?? 'As found' }}</th>
          <th class="py-1 font-normal">{{ to ?? 'As specified' }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(row, i) in rows" :key="i" class="border-t border-line align-top">
          <th scope="row" class="py-1 pr-3 text-left font-normal">
            <span class="text-soft">{{ row.part }}:</span> {{ inSentence(row.label) }}
          </th>
          <td class="py-1 pr-3">{{ row.before }}</td>
          <td class="py-1 font-semibold">{{ row.after }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="rows.length === 0" class="py-1 text-soft">No surveyed value differs.</p>
  </div>
</template>
