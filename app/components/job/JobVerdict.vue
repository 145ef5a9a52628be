<script setup lang="ts">
/** The verdict of the job: as found and, once an answer is chosen, as specified. */
const bench = useJob()
const judging = useJudging()
const isAnswered = computed(() => bench.document!.specified !== undefined)
</script>

<template>
  <span class="inline-flex items-center gap-[0.4em]" :class="verdictColour[judging.found!.verdict]"
    ><VerdictMark :verdict="judging.found!.verdict" size="text" /><span class="text-ink"
      ><span v-if="isAnswered" class="font-normal text-soft">As found: </span
      >{{ judging.found!.headline }}</span
    ></span
  ><span
    v-if="judging.specified"
    class="inline-flex items-center gap-[0.4em]"
    :class="verdictColour[judging.specified.verdict]"
    data-testid="headline-specified"
    ><VerdictMark :verdict="judging.specified.verdict" size="text" /><span class="text-ink"
      ><span class="font-normal text-soft">As specified: </span>{{ judging.specified.headline }}</span
    ></span
  >
</template>
