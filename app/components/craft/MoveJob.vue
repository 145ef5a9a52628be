<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { asJson, ask, read, type JobRow } from '../../utils/api'
import type { CraftPage, CraftRow } from '../../utils/craft'

/** Moves a job to another craft: for one that was entered twice. */
const props = defineProps<{ jobs: readonly JobRow[]; craft: string }>()
const emit = defineEmits<{ moved: [craft: string] }>()
const who = useDeviceName()
const isOpen = ref(false)
const job = ref('')
const words = ref('')
const found = shallowRef<readonly CraftRow[]>([])
const problem = ref('')
const find = useDebounceFn(async () => {
  const answer = await read<CraftPage>(`/api/craft?words=${encodeURIComponent(words.value)}`)
  found.value =
    answer.kind === 'ok' ? answer.data.crafts.filter(({ id }) => id !== props.craft).slice(0, 8) : []
}, 200)
function open() {
  job.value = props.jobs[0]?.id ?? ''
  isOpen.value = true
}
async function move(craft: string) {
  const answer = await ask(`/api/jobs/${job.value}/craft`, asJson('PUT', { who: signedAs(who.value), craft }))
  problem.value = problemOf(answer, 'The server cannot be reached. Nothing was moved.')
  if (answer.kind === 'ok') emit('moved', craft)
}
</script>

<template>
  <button type="button" class="mt-2 min-h-8 text-soft underline max-md:min-h-11" @click="open">
    Move a job to another craft
  </button>
  <AppDialog v-model:open="isOpen" title="Move a job to another craft">
    <p class="text-soft">
      For a craft that was entered twice. The logbook stays. A craft that is left with nothing is removed.
    </p>
    <label class="mt-3 block"
      ><span class="mb-0.5 block text-xs text-soft">Job</span
      ><select v-model="job" class="entry">
        <option v-for="one in jobs" :key="one.id" :value="one.id">{{ one.number }} {{ one.name }}</option>
      </select></label
    >
    <label class="mt-3 block"
      ><span class="mb-0.5 block text-xs text-soft">Craft</span
      ><input
        v-model="words"
        type="search"
        class="entry"
        maxlength="200"
        placeholder="Search name, registration, owner"
        @input="find"
    /></label>
    <ul v-if="found.length" class="mt-1 border border-edge" aria-label="Craft found">
      <li v-for="one in found" :key="one.id" class="border-line not-first:border-t">
        <button
          type="button"
          class="min-h-9 w-full px-2 text-left hover:bg-paper max-md:min-h-11"
          @click="move(one.id)"
        >
          {{ one.name || 'Unnamed craft' }}
          <span class="text-soft">{{ [one.registration, one.customer].filter(Boolean).join(' · ') }}</span>
        </button>
      </li>
    </ul>
    <p v-if="problem" role="alert" class="mt-2 text-bad">{{ problem }}</p>
  </AppDialog>
</template>
