<script setup lang="ts">
import type { Block } from '#core/papers/blocks'
import { verdictWords } from '#core/system/verdict'

/** A block of a paper. */
defineProps<{ block: Block }>()
</script>

<template>
  <p
    v-if="block.kind === 'answer'"
    class="flex items-center gap-3 font-display text-xl font-semibold"
    :class="verdictColour[block.verdict]"
  >
    <VerdictMark :verdict="block.verdict" size="huge" />{{ block.text }}
  </p>
  <p v-else-if="block.kind === 'text'" class="mt-1"><PaperLine :line="block.line" /></p>
  <component
    :is="block.numbered ? 'ol' : 'ul'"
    v-else-if="block.kind === 'list'"
    class="mt-1 pl-6"
    :class="block.numbered ? 'list-decimal' : 'list-disc'"
  >
    <li v-for="(line, i) in block.items" :key="i"><PaperLine :line="line" /></li>
  </component>
  <PaperFacts v-else-if="block.kind === 'facts'" :facts="block.facts" />
  <div v-else-if="block.kind === 'cards'" class="mt-1 grid gap-3 sm:grid-cols-2 print:grid-cols-2">
    <div v-for="card in block.cards" :key="card.title" class="break-inside-avoid border border-line p-2">
      <h3 class="text-base">{{ card.title }}</h3>
      <PaperFacts :facts="card.facts" between />
    </div>
  </div>
  <PaperTable v-else-if="block.kind === 'table'" :table="block" />
  <ul v-else-if="block.kind === 'findings'" class="mt-1 grid gap-2">
    <li
      v-for="(finding, i) in block.findings"
      :key="i"
      class="grid break-inside-avoid grid-cols-[1.25rem_1fr] gap-x-2"
    >
      <VerdictMark :verdict="finding.verdict" size="small" class="mt-0.5" />
      <div>
        <p>
          <span class="sr-only">{{ verdictWords[finding.verdict] }}. </span><PaperLine :line="finding.line" />
        </p>
        <p v-for="words in finding.small" :key="words" class="text-xs text-soft">{{ words }}</p>
      </div>
    </li>
  </ul>
  <div v-else-if="block.kind === 'photos'" class="mt-1 grid gap-3 sm:grid-cols-2 print:grid-cols-2">
    <figure v-for="(photo, i) in block.photos" :key="i" class="break-inside-avoid">
      <img :src="photo.source" :alt="photo.caption || 'Photo'" class="w-full border border-line" />
      <figcaption v-if="photo.caption" class="text-xs text-soft">{{ photo.caption }}</figcaption>
    </figure>
  </div>
  <PaperGrid v-else-if="block.kind === 'grid'" :block="block" />
  <!-- On a phone a drawing is moved sideways: smaller, its letters could not be read. -->
  <div
    v-else-if="block.kind === 'drawing'"
    class="mt-2 overflow-x-auto"
    tabindex="0"
    role="region"
    aria-label="Drawing"
  >
    <PaperShape :drawing="block.drawing" label="Drawing" class="h-auto max-w-full max-md:max-w-[36rem]" />
  </div>
  <div v-else-if="block.kind === 'signatures'" class="mt-10 grid grid-cols-2 gap-10">
    <p v-for="name in block.of" :key="name" class="border-t border-ink pt-1 text-xs text-soft">{{ name }}</p>
  </div>
</template>
