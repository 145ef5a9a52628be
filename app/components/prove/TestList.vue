<script setup lang="ts">
import type { ShownTest } from '#core/diagnosis/shown'

/** All tests by their titles, to choose one on the phone: the essential ones first. */
const props = defineProps<{
  tests: readonly ShownTest[]
  more: readonly ShownTest[]
  verdictOf: (test: ShownTest) => 'within' | 'outside' | 'open'
}>()
const chosen = defineModel<string>({ required: true })
const parts = computed(() =>
  [
    { title: 'Essential tests', tests: props.tests },
    { title: 'More tests', tests: props.more },
  ].filter(({ tests }) => tests.length > 0),
)
</script>

<template>
  <section v-for="part in parts" :key="part.title" :aria-label="part.title">
    <h3 class="mt-2 font-semibold">{{ part.title }}</h3>
    <ul>
      <li v-for="test in part.tests" :key="test.id" class="border-b border-line">
        <button
          type="button"
          class="flex min-h-11 w-full items-center gap-2 text-left"
          :aria-pressed="chosen === test.id"
          @click="chosen = test.id"
        >
          <span class="flex-1">{{ test.title }}</span>
          <VerdictMark
            v-if="verdictOf(test) !== 'open'"
            :verdict="verdictOf(test) === 'within' ? 'suits' : 'does-not-suit'"
            size="small"
          />
        </button>
      </li>
    </ul>
  </section>
</template>
