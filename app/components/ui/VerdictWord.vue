<script setup lang="ts">
import { verdictWords, type Verdict } from '#core/system/verdict'

defineProps<{ verdict: Verdict }>()
</script>

<template>
  <span class="inline-flex items-center gap-2 font-semibold" :class="verdictColour[verdict]"
    ><VerdictMark :verdict="verdict" />{{ verdictWords[verdict] }}</span
  >
</template>
