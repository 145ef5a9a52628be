<script setup lang="ts">
import type { Paper } from '#core/papers/blocks'

/** A paper as a page, and as it is printed from it. */
defineProps<{ paper: Paper }>()
</script>

<template>
  <article
    class="sheet border border-line bg-card p-6 md:p-9 print:border-0 print:bg-white print:p-0"
    :class="{ 'text-lg': paper.type === 'large' }"
    data-testid="paper"
  >
    <header class="flex items-start justify-between gap-6 border-b-2 border-ink pb-3">
      <div>
        <p class="text-soft">{{ paper.over }}</p>
        <h1 class="text-2xl">{{ paper.title }}</h1>
        <p v-for="(words, i) in paper.under" :key="i" :class="{ 'text-soft': i > 0 }">{{ words }}</p>
      </div>
      <img
        v-if="paper.logo"
        :src="paper.logo"
        alt=""
        class="max-h-16 max-w-48 shrink-0 object-contain"
      /><AnchorMark v-else class="size-12 shrink-0 text-sea" />
    </header>
    <section
      v-for="(section, i) in paper.sections"
      :key="i"
      class="border-b border-line py-4 last:border-b-0 last:pb-0"
    >
      <div class="flex break-after-avoid flex-wrap items-baseline gap-x-3">
        <h2 class="text-lg">{{ section.heading }}</h2>
        <p v-if="section.about" class="mr-auto text-soft">{{ section.about }}</p>
        <VerdictWord v-if="section.verdict" :verdict="section.verdict" class="ml-auto" />
      </div>
      <PaperBlock v-for="(block, b) in section.blocks" :key="b" :block="block" />
    </section>
  </article>
</template>

<style scoped>
/* Paper is white whatever the screen is. */
@media print {
  .sheet {
    --card: #fff;
    --paper: #fff;
    --ink: #111;
    --soft: #444;
    --line: #bbb;
    --sea: #24505e;
    --suits: #1a6656;
    --changed: #8a560a;
    --measure: #5a4a99;
    --bad: #a8321f;
    color: var(--ink);
  }
}
</style>
