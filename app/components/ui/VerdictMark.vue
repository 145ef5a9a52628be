<script setup lang="ts">
import { verdictMarks } from '#core/papers/marks'
import type { Verdict } from '#core/system/verdict'

/** The verdict by outline, as large as the words it stands with. */
const { size = 'usual' } = defineProps<{ verdict: Verdict; size?: keyof typeof sizes }>()
const sizes = {
  tiny: 'size-3.5',
  small: 'size-4',
  usual: 'size-5',
  large: 'size-6',
  huge: 'size-8',
  text: 'size-[1.15em]',
} as const
</script>

<template>
  <svg
    viewBox="0 0 20 20"
    aria-hidden="true"
    class="inline-block shrink-0"
    :class="[sizes[size], verdictColour[verdict]]"
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
