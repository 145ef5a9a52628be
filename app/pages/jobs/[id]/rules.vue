<script setup lang="ts">
/** The shop rules as this job has them. */
const judging = useJudging()
const { bench, problem, ready } = useJobPage('Rules')
</script>

<template>
  <JobShell
    title="Rules of this job"
    about="Rules that this job overrides. Its papers name them."
    :problem="problem"
    :ready="ready"
  >
    <div class="mx-auto max-w-4xl p-4 md:p-6">
      <RuleList
        :model-value="bench.document!.rules"
        :base="judging.rules"
        base-name="shop"
        @update:model-value="bench.setRules"
      />
    </div>
  </JobShell>
</template>
