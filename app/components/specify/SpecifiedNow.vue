<script setup lang="ts">
import { asSpecified, withSpecified } from '#core/job/as-specified'
import { costOf } from '#core/job/specified'
import { changedFields } from '#core/job/shown'

/** The chosen answer of the job, next to the survey: in brief, with its differences and a button to remove it. */
const { q } = useWriting()
const bench = useJob()
const judging = useJudging()
const chosen = computed(() => bench.document!.specified!)
const parts = computed(() => [...chosen.value.battery, ...chosen.value.steps.flatMap((step) => step.parts)])
const cost = computed(() => costOf(parts.value))
const hours = computed(() => chosen.value.steps.reduce((sum, step) => sum + step.hours, 0))
/** Its verdict with the current survey and rules, which may have changed since it was chosen. */
const now = computed(() => judging.specified)
const rows = computed(() =>
  changedFields(withSpecified(bench.document!, null), asSpecified(bench.document!), chosen.value.changes, q),
)
</script>

<template>
  <section class="border border-sea bg-card p-3" aria-labelledby="specified">
    <div class="flex flex-wrap items-start gap-x-4 gap-y-1">
      <div class="mr-auto min-w-0">
        <h2 id="specified" class="text-lg">Specified: {{ chosen.name }}</h2>
        <p class="text-soft">
          by {{ chosen.by }}, {{ ago(chosen.at) }}. {{ q(cost, 'money') }} of parts, {{ q(hours, 'h') }}. The
          survey stays as it was found.
        </p>
      </div>
      <button type="button" class="act-quiet" @click="bench.edit((job) => withSpecified(job, null))">
        Withdraw choice
      </button>
    </div>
    <p v-if="now" class="mt-1" data-testid="specified-now">
      <VerdictMark :verdict="now.verdict" size="small" class="mr-2 inline align-text-bottom" />{{
        `${now.headline} with the survey and rules as they are now.`
      }}<template v-if="now.verdict === 'suits-once-changed' || now.verdict === 'does-not-suit'">
        {{ now.reason }} Search again, or take this answer back.</template
      >
    </p>
    <details class="mt-1">
      <summary class="min-h-8 py-1 max-md:min-h-11">
        As found and as specified: {{ rows.length }} values differ
      </summary>
      <ChangedFields :rows="rows" />
    </details>
  </section>
</template>
