<script setup lang="ts">
import { verdictMarks } from '#core/papers/marks'
import type { Verdict } from '#core/system/verdict'

/** The verdict by outline. */
defineProps<{ verdict: Verdict }>()
</script>

<template>
  <svg
    viewBox="0 0 20 20"
    aria-hidden="true"
    class="inline-block size-5 shrink-0"
    :class="verdictColour[verdict]"
  >
    <path
      v-for="{ d, as, width, dash } in verdictMarks[verdict]"
      :key="d"
      :d="d"
      :fill="as === 'filled' ? 'currentColor' : 'none'"
      :stroke="as === 'drawn' ? 'currentColor' : as === 'cut' ? 'var(--card)' : 'none'"
      :stroke-width="width"
      :stroke-dasharray="dash"
    />
  </svg>
</template>
