<script setup lang="ts">
import { read } from '../../utils/api'
import type { FleetRow, WholeCraft } from '../../utils/craft'

/** Starts a job of this craft from the newest job of another of the fleet: only the differences are left to check. */
defineProps<{ fleet: readonly FleetRow[] }>()
const emit = defineEmits<{ copy: [job: string] }>()
const problem = ref('')
async function copy(event: Event) {
  const select = event.target as HTMLSelectElement
  const id = select.value
  select.value = ''
  const answer = await read<WholeCraft>(`/api/craft/${id}`)
  problem.value = problemOf(answer, 'The server cannot be reached.')
  const newest = answer.kind === 'ok' ? answer.data.jobs[0] : undefined
  if (newest) emit('copy', newest.id)
  else if (!problem.value) problem.value = 'That craft has no job yet.'
}
</script>

<template>
  <label class="mt-2 block"
    ><span class="mb-0.5 block text-xs text-soft">Start a job from the newest one of</span
    ><select class="entry" @change="copy">
      <option value="">Choose a craft of the fleet…</option>
      <option v-for="one in fleet" :key="one.id" :value="one.id">
        {{ one.name || 'Unnamed craft' }}{{ one.registration && ` · ${one.registration}` }}
      </option>
    </select></label
  >
  <p v-if="problem" role="alert" class="mt-1 text-bad">{{ problem }}</p>
</template>
