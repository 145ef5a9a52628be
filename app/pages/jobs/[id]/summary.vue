<script setup lang="ts">
/**
 * The page the customer gets: the answer, the reasons, what to change, what is still open, and the cautions.
 */
const shop = useShop()
const { bench, problem, id } = useJobPage('Summary')
const print = () => window.print()
const madeAt = new Date().toISOString()

const { result: paper } = useAsked(
  (engine, job, settings) => engine.summary(job, settings, shop.shop.name, madeAt),
  () => bench.document,
)
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
