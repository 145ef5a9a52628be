<script setup lang="ts">
import { readKept } from '../../device/answers'
import type { SheetRow } from '../../utils/api'

/**
 * Sheets issued for the job, and issuing the next, once an answer is chosen. An issued one stays as it is,
 * whatever changes afterwards.
 */
const bench = useJob()
const account = useAccount()
const who = useDeviceName()
const rows = shallowRef<readonly SheetRow[]>([])
const problem = ref('')
const busy = ref(false)
async function load() {
  const answer = await readKept<SheetRow[]>(`/api/jobs/${bench.id}/sheets`)
  if (answer.kind === 'ok') rows.value = answer.data.filter(({ kind }) => kind === 'specification')
}
onMounted(load)
async function issue() {
  busy.value = true
  problem.value = ''
  const answer = await ask<SheetRow>(
    `/api/jobs/${bench.id}/sheets`,
    asJson('POST', { version: bench.version, epoch: bench.epoch, who: who.value || 'Unnamed device' }),
  )
  busy.value = false
  if (answer.kind === 'ok') return void load()
  problem.value =
    answer.kind === 'refused'
      ? `${answer.refused.error}.`
      : 'The server cannot be reached; nothing was issued.'
}
const chosen = computed(() => bench.document?.specified !== undefined)
const saved = computed(() => bench.save.kind === 'saved')
const hint = computed(() => {
  if (!account.mayDecide) return needsInstaller
  if (!chosen.value) return 'Choose an answer first. The specification lists its parts, settings and work.'
  return saved.value
    ? 'Inputs, rules, parts and results are frozen as issued.'
    : 'Wait until the job is saved.'
})
</script>

<template>
  <section class="border border-line bg-card p-3" aria-labelledby="sheets">
    <h2 id="sheets" class="text-lg">Specification sheet</h2>
    <p class="mt-1 flex flex-wrap items-center gap-3">
      <button
        type="button"
        class="act"
        :disabled="busy || !saved || !chosen || !account.mayDecide"
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
        <NuxtLink
          :to="`/jobs/${bench.id}/sheets/${row.count}`"
          class="inline-flex min-h-8 items-center font-semibold underline max-md:min-h-11"
          >Specification {{ row.number }}</NuxtLink
        ><span class="text-xs text-soft">{{ row.name }}, {{ ago(row.issuedAt) }} by {{ row.issuedBy }}</span
        ><a
          :href="`/api/jobs/${bench.id}/sheets/${row.count}/pdf`"
          target="_blank"
          class="underline max-md:min-h-11"
          >PDF</a
        ><a :href="`/api/jobs/${bench.id}/sheets/${row.count}/csv`" class="underline max-md:min-h-11">CSV</a>
      </li>
    </ul>
  </section>
</template>
