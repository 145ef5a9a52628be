<script setup lang="ts">
import { summaryPaper } from '#core/papers/summary'

/**
 * The page the customer gets: the answer, the reasons, what to change, what is still open, and the cautions.
 */
const judging = useJudging()
const shop = useShop()
const { bench, problem, id } = useJobPage('Summary')
const print = () => window.print()
const madeAt = new Date().toISOString()

const paper = computed(() => {
  const { document } = bench
  const { assessment, drawings } = judging
  if (!document || !assessment) return null
  return summaryPaper({ job: document, assessment, lanes: drawings, shop: shop.shop, madeAt })
})
</script>

<template>
  <main v-if="problem" class="p-10 text-center">
    <h1 class="text-2xl">This job cannot be opened</h1>
    <p class="mt-2">{{ problem }}</p>
  </main>
  <main v-else-if="paper" class="mx-auto max-w-[52rem] p-4 md:px-8 md:py-6 print:max-w-none print:p-0">
    <p class="mb-4 flex flex-wrap gap-2 print:hidden">
      <NuxtLink :to="`/jobs/${id}`" class="act-quiet">Back to the bench</NuxtLink
      ><button type="button" class="act" @click="print">Print</button
      ><a :href="`/api/jobs/${id}/summary`" target="_blank" class="act-quiet">PDF</a>
    </p>
    <PaperSheet :paper="paper" />
  </main>
  <main v-else class="p-10 text-soft" aria-busy="true">Opening the job …</main>
</template>
