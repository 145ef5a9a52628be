<script setup lang="ts">
import type { GlossaryTopic } from '#core/words/glossary'

/** A view of a job other than the bench: which job, its verdict, the way to the other views. */
defineProps<{
  title: string
  about: string
  problem: string | null
  ready: boolean
  /** Topic of the glossary with the words of the view. */
  topic?: GlossaryTopic
}>()
const bench = useJob()
const view = useView()

/** A value is entered on the bench. */
function measure(path: string) {
  if (!isStation(stationOf(path))) return void navigateTo(`/jobs/${bench.id}/wiring`)
  useFieldInHand(bench.id!).value = path
  void navigateTo({ path: `/jobs/${bench.id}`, query: { station: stationOf(path), column: 'walk' } })
}
function showCheck(key: string) {
  view.selected = key
  void navigateTo({ path: `/jobs/${bench.id}`, query: { column: 'why' } })
}
</script>

<template>
  <main v-if="problem" class="mx-auto max-w-xl p-10 text-center">
    <AnchorMark class="mx-auto mb-3 size-12 text-soft" />
    <h1 class="text-2xl">This job cannot be opened</h1>
    <p class="mt-2">{{ problem }}</p>
    <NuxtLink to="/" class="act mt-4">Back to jobs</NuxtLink>
  </main>
  <main v-else-if="ready" class="pb-8">
    <header class="border-b border-line bg-card px-4 pt-3 md:px-5">
      <p class="flex flex-wrap items-center gap-x-2 text-soft">
        <span
          >Job {{ bench.document!.job.number }} ·
          <strong class="text-ink">{{ bench.document!.job.name || 'unnamed' }}</strong></span
        >
        <span class="inline-flex flex-wrap items-center gap-x-3 font-semibold" data-testid="headline"
          ><JobVerdict
        /></span>
        <SaveNote /><AlsoHere />
      </p>
      <div class="mt-0.5 flex flex-wrap items-baseline gap-x-4">
        <h1 class="text-2xl">{{ title }}</h1>
        <p class="text-soft max-md:hidden">{{ about }}</p>
        <HelpLink v-if="topic" :topic="topic" class="self-center" />
      </div>
      <div class="mt-1 flex flex-wrap items-center gap-x-4 gap-y-1">
        <JobTabs class="mr-auto" />
        <span class="flex gap-2 pb-1 text-xs"><JobActions /></span>
      </div>
    </header>
    <JobNotice />
    <slot />
    <ConflictDialog />
    <JobDialogs @measure="measure" @check="showCheck" />
  </main>
  <main v-else class="p-10 text-soft" aria-busy="true">Opening the job …</main>
</template>
