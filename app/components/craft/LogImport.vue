<script setup lang="ts">
import { ask } from '../../utils/api'

/** Reads entries from a table: shows what is wrong before anything is added. */
const props = defineProps<{ craft: string }>()
const emit = defineEmits<{ taken: [] }>()
const who = useDeviceName()
interface Read {
  readonly count: number
  readonly good: number
  readonly problems: readonly { readonly line: number; readonly column: string; readonly reason: string }[]
  readonly added?: number
}
const problem = ref('')
const read = shallowRef<(Read & { readonly name: string; readonly text: string }) | null>(null)
const largestMb = 4

async function send(text: string, take: 'none' | 'good'): Promise<Read | null> {
  const answer = await ask<Read>(
    `/api/craft/${props.craft}/log/table?${new URLSearchParams({ who: who.value || 'Unnamed device', take })}`,
    { method: 'POST', headers: { 'content-type': 'text/csv' }, body: text },
  )
  problem.value = problemOf(answer, 'The server cannot be reached. Nothing was added.')
  return answer.kind === 'ok' ? answer.data : null
}
async function choose(event: Event) {
  const file = await takeText(event, largestMb)
  if (!file) return
  if (file.problem !== undefined) return void (problem.value = file.problem)
  const got = await send(file.text, 'none')
  read.value = got && { ...got, name: file.name, text: file.text }
}
async function take() {
  const got = read.value && (await send(read.value.text, 'good'))
  if (!got) return
  read.value = null
  emit('taken')
}
</script>

<template>
  <label class="act-quiet focus-within:outline-2 focus-within:outline-sea"
    >Import CSV<input type="file" accept=".csv,text/csv" class="sr-only" @change="choose"
  /></label>
  <p v-if="problem && !read" role="alert" class="w-full text-bad">{{ problem }}</p>
  <AppDialog v-if="read" :open="true" :title="`Import ${read.name}`" @update:open="read = null">
    <p>{{ read.good }} of {{ read.count }} rows can be added.</p>
    <ul v-if="read.problems.length" class="mt-2 max-h-60 overflow-y-auto" aria-label="Problems">
      <li v-for="one in read.problems" :key="`${one.line} ${one.column}`">
        Line {{ one.line }}, {{ one.column }}: {{ one.reason }}
      </li>
    </ul>
    <p v-if="problem" role="alert" class="mt-2 text-bad">{{ problem }}</p>
    <p class="mt-3">
      <button type="button" class="act" :disabled="read.good === 0" @click="take">
        Add {{ read.good === 1 ? '1 entry' : `${read.good} entries` }}
      </button>
    </p>
  </AppDialog>
</template>
