<script setup lang="ts">
import { partName, type PartRef } from '#core/job/document'
import type { PartKind } from '#core/job/fields'

/** The part that a part of the survey belongs to: chosen among the existing parts. */
defineProps<{ of: PartRef; refers: NonNullable<PartKind['refers']>; targets: readonly PartRef[] }>()
const bench = useJob()
</script>

<template>
  <select
    class="entry"
    data-step
    :value="of.part[refers.field] ?? ''"
    @change="bench.setPartText(of.path, refers.field, ($event.target as HTMLSelectElement).value)"
  >
    <option value="">unknown</option>
    <option v-for="target in targets" :key="target.path" :value="target.path">
      {{ partName(bench.document!, target.path) }}
    </option>
  </select>
</template>
