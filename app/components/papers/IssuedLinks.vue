<script setup lang="ts">
import type { SheetRow } from '../../utils/api'

/** Links to an issued sheet: its page, the PDF, its lines as CSV. The slot holds more words of the list. */
defineProps<{ row: SheetRow; name: string }>()
const bench = useJob()
</script>

<template>
  <NuxtLink
    :to="`/jobs/${bench.id}/sheets/${row.count}`"
    class="inline-flex min-h-8 items-center font-semibold underline max-md:min-h-11"
    >{{ name }} {{ row.number }}</NuxtLink
  ><slot /><a
    :href="`/api/jobs/${bench.id}/sheets/${row.count}/pdf`"
    target="_blank"
    class="underline max-md:min-h-11"
    >PDF</a
  ><a :href="`/api/jobs/${bench.id}/sheets/${row.count}/csv`" class="underline max-md:min-h-11">CSV</a>
</template>
