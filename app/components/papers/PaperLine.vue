<script setup lang="ts">
import type { Line } from '#core/papers/blocks'

/** A line of a paper, piece by piece. */
defineProps<{ line: Line }>()
</script>

<template>
  <template v-for="(span, i) in line" :key="i"
    ><span
      v-if="span.verdict"
      class="inline-flex items-center gap-1.5 align-bottom font-semibold"
      :class="verdictColour[span.verdict]"
      ><VerdictMark :verdict="span.verdict" size="small" />{{ span.text }}</span
    ><strong v-else-if="span.tone === 'strong'">{{ span.text }}</strong
    ><span v-else :class="{ 'text-soft': span.tone === 'soft' }">{{ span.text }}</span></template
  >
</template>
