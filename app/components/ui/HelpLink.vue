<script setup lang="ts">
import { glossary, type GlossaryTopic } from '#core/words/glossary'

/** Leads from a view to the words it uses. */
const props = defineProps<{ topic: GlossaryTopic }>()
const label = computed(() => `Explain the words: ${glossary[props.topic].title}`)
</script>

<template>
  <NuxtLink
    :to="`/help#${topic}`"
    :aria-label="label"
    :title="label"
    class="inline-grid size-6 place-items-center rounded-full border border-edge text-sm text-soft hover:text-ink max-md:size-11"
    >?</NuxtLink
  >
</template>
