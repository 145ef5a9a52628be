<script setup lang="ts">
import type { Verdict } from '#core/system/verdict'

/** The verdict by outline: a disc, a diamond, a dashed square, an octagon. */
defineProps<{ verdict: Verdict }>()
</script>

<template>
  <svg
    viewBox="0 0 20 20"
    aria-hidden="true"
    class="inline-block size-5 shrink-0"
    :class="verdictColour[verdict]"
  >
    <g v-if="verdict === 'suits'">
      <circle cx="10" cy="10" r="8.5" fill="currentColor" />
      <path d="m6 10.3 2.8 2.8L14 7.6" fill="none" stroke="var(--card)" stroke-width="2" />
    </g>
    <g v-else-if="verdict === 'suits-once-changed'">
      <path d="M10 .8 19.2 10 10 19.2.8 10Z" fill="currentColor" />
      <path d="M10 6v8M6 10h8" stroke="var(--card)" stroke-width="2" />
    </g>
    <g v-else-if="verdict === 'measure-first'">
      <rect
        x="2"
        y="2"
        width="16"
        height="16"
        rx="2"
        fill="none"
        stroke="currentColor"
        stroke-width="2.2"
        stroke-dasharray="4.2 2.6"
      />
      <path
        d="M7.6 8a2.5 2.5 0 1 1 3.6 2.2c-.8.4-1.2.9-1.2 1.8"
        fill="none"
        stroke="currentColor"
        stroke-width="1.8"
      />
      <circle cx="10" cy="14.4" r="1.2" fill="currentColor" />
    </g>
    <g v-else>
      <path d="M6.3 1h7.4L19 6.3v7.4L13.7 19H6.3L1 13.7V6.3Z" fill="currentColor" />
      <path d="m6.8 6.8 6.4 6.4m0-6.4-6.4 6.4" stroke="var(--card)" stroke-width="2" />
    </g>
  </svg>
</template>
