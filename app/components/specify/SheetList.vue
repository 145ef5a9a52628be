<script setup lang="ts">
/**
 * Sheets issued for the job, and issuing the next, once an answer is chosen. An issued one stays as it is,
 * whatever changes afterwards.
 */
const bench = useJob()
const account = useAccount()
const { rows, isIssuing: busy, isSaved, hintFor, load, issue: issueNext } = useIssued('specification')
const problem = ref('')
onMounted(load)
async function issue() {
  problem.value = ''
  const answer = await issueNext()
  if (answer.kind === 'ok') return
  problem.value =
    answer.kind === 'refused'
      ? `${answer.refused.error}.`
      : 'The server cannot be reached; nothing was issued.'
}
const chosen = computed(() => bench.document?.specified !== undefined)
const hint = computed(() =>
  hintFor(
    chosen.value ? '' : 'Choose an answer first. The specification lists its parts, settings and work.',
    'Inputs, rules, parts and results are frozen as issued.',
  ),
)
</script>

<template>
  <section class="border border-line bg-card p-3" aria-labelledby="sheets">
    <h2 id="sheets" class="text-lg">Specification sheet</h2>
    <p class="mt-1 flex flex-wrap items-center gap-3">
      <button
        type="button"
        class="act"
        :disabled="busy || !isSaved || !chosen || !account.mayDecide"
        @click="issue"
      >
        {{ busy ? 'Issuing …' : 'Issue specification' }}</button><span
        v-if="busy"
        role="status"
        class="flex items-center gap-2 text-xs text-soft"
        ><progress class="w-24" aria-label="Issuing the specification" />Checking and freezing the job …</span
      ><span v-else class="text-xs text-soft">{{ hint }}</span>
    </p>
    <p v-if="problem" role="alert" class="mt-1 text-bad">{{ problem }}</p>
    <ul v-if="rows.length" aria-label="Sheets issued" class="mt-2">
      <li
        v-for="row in rows"
        :key="row.count"
        class="flex flex-wrap items-baseline gap-x-3 border-t border-line py-1"
      >
        <IssuedLinks :row="row" name="Specification"
          ><span class="text-xs text-soft"
            >{{ row.name }}, {{ ago(row.issuedAt) }} by {{ row.issuedBy }}</span
          ></IssuedLinks
        >
      </li>
    </ul>
  </section>
</template>
