<script setup lang="ts">
import { glossary } from '#core/words/glossary'
import type { JobPage } from '../utils/api'

useHead({ title: 'Help · Jovial Anchor' })
useKeys(shopKeys)
const { data } = await useFetch<JobPage>('/api/jobs', { query: { words: '0417' } })
/** The job of the tour: the demo workboat, as long as it is there. */
const tourId = computed(() => data.value?.jobs.find(({ number }) => number === '0417')?.id ?? null)
const steps = [
  {
    view: '',
    title: 'Bench',
    text: 'The verdict is at the top. Click a charging path, then a check, to see the compared numbers, the limit and possible fixes. “Next measurements” names the missing values that change a verdict.',
  },
  {
    view: '?station=chargers&column=walk',
    title: 'Survey',
    text: 'Walk round the boat with the phone. Enter what you measure and say how you know it. Every verdict is checked again while you type.',
  },
  {
    view: '/specify',
    title: 'Specify',
    text: 'Jovial Anchor searches complete answers from your shelf. Compare cost and hours, switch steps off, choose one, and issue the specification.',
  },
  {
    view: '/wiring',
    title: 'Wiring',
    text: 'The wiring is proposed with sizes and fuses, and every run is checked. Set lengths and sizes that you measured.',
  },
  {
    view: '/prove',
    title: 'Prove',
    text: 'Follow the order of work, then make the essential tests. Each shows the expected reading. A wrong reading leads to its likely causes.',
  },
  {
    view: '/run',
    title: 'Run',
    text: 'See the system over a driving day, a cold week or a year, and compare the old bank with the new one.',
  },
  {
    view: '/papers',
    title: 'Papers',
    text: 'Issue what the customer gets: summary, quotation, booklet and record. Print labels and settings cards.',
  },
] as const
</script>

<template>
  <main class="mx-auto max-w-4xl p-4 md:px-8 md:py-7">
    <h1 class="text-3xl">Help</h1>
    <nav aria-label="Parts of the help" class="mt-2 flex flex-wrap gap-x-4">
      <a href="#tour" class="inline-block min-h-6 underline max-md:min-h-11">Tour</a>
      <a href="#words" class="inline-block min-h-6 underline max-md:min-h-11">Glossary</a>
      <a href="#keys" class="inline-block min-h-6 underline max-md:min-h-11">Keys</a>
    </nav>
    <section id="tour" aria-labelledby="tour-title" class="mt-6 scroll-mt-4">
      <h2 id="tour-title" class="text-xl">Five-minute tour</h2>
      <p class="text-soft">
        One job in seven steps<template v-if="tourId"
          >, with the demo job 0417. Try everything: undo works</template
        >.
      </p>
      <ol class="mt-2 list-decimal space-y-2 pl-6">
        <li v-for="step in steps" :key="step.title">
          <NuxtLink
            v-if="tourId"
            :to="`/jobs/${tourId}${step.view}`"
            class="flex min-h-6 items-end font-semibold underline max-md:min-h-11"
            >{{ step.title }}</NuxtLink><strong v-else class="block">{{ step.title }}</strong
          >{{ step.text }}
        </li>
      </ol>
    </section>
    <section id="words" aria-labelledby="words-title" class="mt-8 scroll-mt-4">
      <h2 id="words-title" class="text-xl">Glossary</h2>
      <p class="text-soft">One word for one thing, here and on every paper.</p>
      <section
        v-for="(group, topic) in glossary"
        :id="topic"
        :key="topic"
        :aria-labelledby="`${topic}-title`"
        class="mt-4 scroll-mt-4"
      >
        <h3 :id="`${topic}-title`" class="text-lg">{{ group.title }}</h3>
        <dl class="mt-1 grid gap-x-4 md:grid-cols-[12rem_1fr]">
          <template v-for="{ word, meaning } in group.words" :key="word"
            ><dt class="border-t border-line pt-1 font-semibold">{{ word }}</dt>
            <dd class="pb-1 md:border-t md:border-line md:pt-1">{{ meaning }}</dd></template
          >
        </dl>
      </section>
    </section>
    <section id="keys" aria-labelledby="keys-title" class="mt-8 scroll-mt-4">
      <h2 id="keys-title" class="text-xl">Keys</h2>
      <p class="text-soft">These keys do nothing while you type in a field.</p>
      <KeyList class="mt-2" />
    </section>
  </main>
</template>
