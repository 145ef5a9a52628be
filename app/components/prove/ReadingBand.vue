<script setup lang="ts">
import { expectedWords } from '#core/commissioning/readings'
import type { ShownTest } from '#core/diagnosis/shown'

/** The expected band and the place of the reading. */
const props = defineProps<{ test: ShownTest; value: number | null }>()
const { q } = useWriting()
/** The scale shows this many tolerances to either side of the expected value. */
const reach = 4
const least = computed(() => props.test.expected - reach * props.test.tolerance)
const span = computed(() => 2 * reach * props.test.tolerance || 1)
const at = (value: number): number => Math.min(99, Math.max(1, (100 * (value - least.value)) / span.value))
const words = computed(() =>
  expectedWords(props.test.expected, props.test.tolerance, props.test.quantity, props.test.unit, q),
)
</script>

<template>
  <div>
    <svg
      v-if="test.quantity !== 'answer'"
      viewBox="0 0 100 12"
      preserveAspectRatio="none"
      class="h-9 w-full"
      aria-hidden="true"
    >
      <rect x="0" y="5" width="100" height="2" fill="var(--line)" />
      <rect
        :x="at(test.expected - test.tolerance)"
        y="3.5"
        :width="at(test.expected + test.tolerance) - at(test.expected - test.tolerance)"
        height="5"
        fill="var(--suits)"
      />
      <rect v-if="value !== null" :x="at(value) - 0.5" y="0" width="1" height="12" fill="var(--ink)" />
    </svg>
    <p class="text-center text-soft" data-testid="expected">
      {{ test.quantity === 'answer' ? `expected: ${words}` : `expected ${words}` }}
    </p>
  </div>
</template>
