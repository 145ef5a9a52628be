<script setup lang="ts">
import { withSpecified } from '#core/job/as-specified'
import type { IssuedContent } from '#core/papers/issued'
import type { SheetRow } from '../../utils/api'

/** The customer took an alternative: it becomes the chosen answer of the job by a press. */
const props = defineProps<{ row: SheetRow }>()
const bench = useJob()
const problem = ref('')
const isDone = ref(false)
async function use(): Promise<void> {
  const answer = await ask<{ sheet: IssuedContent }>(`/api/jobs/${bench.id}/sheets/${props.row.count}`)
  problem.value = problemOf(answer, 'The server cannot be reached. Nothing was changed.')
  if (answer.kind !== 'ok') return
  const taken = answer.data.sheet.inputs.job.quotation?.alternatives?.[props.row.answer?.alternative ?? '']
  if (!taken) return
  bench.edit((job) => withSpecified(job, taken))
  isDone.value = true
}
</script>

<template>
  <p v-if="isDone" role="status">The alternative is the chosen answer now.</p>
  <p v-else>
    The customer took an alternative.
    <button type="button" class="act-quiet" @click="use">Make it the chosen answer</button>
  </p>
  <p v-if="problem" role="alert" class="text-bad">{{ problem }}</p>
</template>
