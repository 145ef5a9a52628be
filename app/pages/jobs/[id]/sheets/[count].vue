<script setup lang="ts">
import { issuedPaper, type IssuedContent } from '#core/papers/issued'
import type { SheetRow } from '../../../../utils/api'

/** An issued sheet, unchanged: it reads nothing of the present job, rules or shelf. */
const route = useRoute()
const found = shallowRef<(SheetRow & { sheet: IssuedContent }) | null>(null)
const problem = ref('')
const address = computed(() => `/api/jobs/${String(route.params.id)}/sheets/${String(route.params.count)}`)
onMounted(async () => {
  const answer = await ask<SheetRow & { sheet: IssuedContent }>(address.value)
  if (answer.kind === 'ok') found.value = answer.data
  else
    problem.value = answer.kind === 'refused' ? `${answer.refused.error}.` : 'The server cannot be reached.'
})
useHead({
  title: () =>
    found.value ? `${issuedPaper(found.value.sheet).title} · Jovial Anchor` : 'Issued · Jovial Anchor',
})
const print = () => window.print()
</script>

<template>
  <main v-if="problem" class="mx-auto max-w-xl p-10 text-center">
    <AnchorMark class="mx-auto mb-3 size-12 text-soft" />
    <h1 class="text-2xl">No such sheet</h1>
    <p class="mt-2">{{ problem }}</p>
    <NuxtLink :to="`/jobs/${route.params.id}/specify`" class="act mt-4">To the job</NuxtLink>
  </main>
  <main
    v-else-if="found"
    class="mx-auto max-w-[52rem] p-4 md:px-8 md:py-6 print:max-w-none print:p-0"
    data-testid="sheet"
  >
    <p class="mb-4 flex flex-wrap gap-2 print:hidden">
      <NuxtLink :to="`/jobs/${route.params.id}/${paperView[found.kind]}`" class="act-quiet"
        >Back to the job</NuxtLink
      ><button type="button" class="act-quiet" @click="print">Print</button
      ><a :href="`${address}/pdf`" target="_blank" class="act-quiet">PDF</a
      ><a
        v-if="found.kind === 'quotation' || found.kind === 'specification'"
        :href="`${address}/csv`"
        class="act-quiet"
        >{{ found.kind === 'quotation' ? 'Lines as CSV' : 'Parts as CSV' }}</a
      >
    </p>
    <PaperSheet :paper="issuedPaper(found.sheet)" />
  </main>
  <main v-else class="p-10 text-soft" aria-busy="true">Opening the sheet …</main>
</template>
