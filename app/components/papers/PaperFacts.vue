<script setup lang="ts">
import type { Fact } from '#core/papers/blocks'

/** Facts, line by line; `between` sets the values to the right edge. */
defineProps<{ facts: readonly Fact[]; between?: boolean }>()
</script>

<template>
  <dl>
    <div
      v-for="{ label, value } in facts"
      :key="label"
      class="gap-x-3 border-t border-line py-0.5"
      :class="between ? 'flex justify-between' : 'grid sm:grid-cols-[14rem_1fr] print:grid-cols-[14rem_1fr]'"
    >
      <dt class="text-soft">{{ label }}</dt>
      <dd :class="{ 'text-right font-semibold': between }">{{ value }}</dd>
    </div>
  </dl>
</template>
