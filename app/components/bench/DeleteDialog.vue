<script setup lang="ts">
import { ask } from '../../utils/api'

/** Deletes the job on the bench, once its name is typed. */
const open = defineModel<boolean>('open', { required: true })
const bench = useJob()
const device = useDeviceName()
const typed = ref('')
const problem = ref('')
const wanted = computed(() => bench.document!.job.name || bench.document!.job.number)
watch(open, () => {
  typed.value = problem.value = ''
})
async function remove() {
  const query = new URLSearchParams({ who: signedAs(device.value), name: typed.value })
  const answer = await ask(`/api/jobs/${bench.id}?${query}`, { method: 'DELETE' })
  if (answer.kind === 'ok') return void navigateTo('/')
  problem.value =
    answer.kind === 'refused'
      ? `${answer.refused.error}.`
      : 'The server cannot be reached. Nothing was deleted.'
}
</script>

<template>
  <AppDialog v-model:open="open" title="Delete this job">
    <form @submit.prevent="remove">
      <p>
        The job leaves the list with its history and photos. You can restore it for 30 days: choose the stage
        “Deleted”. Issued sheets stay.
      </p>
      <label class="mt-3 block"
        ><span class="font-semibold">Type {{ wanted }} to delete it</span
        ><input v-model="typed" class="entry" maxlength="200" autocomplete="off"
      /></label>
      <p v-if="problem" role="alert" class="mt-2 text-bad">{{ problem }}</p>
      <button type="submit" class="act mt-3" :disabled="typed.trim() !== wanted.trim()">Delete job</button>
    </form>
  </AppDialog>
</template>
