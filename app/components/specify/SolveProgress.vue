<script setup lang="ts">
/**
 * How far a search has come. A component of its own, so that each step of progress draws this and not the
 * whole page.
 */
defineProps<{ solver: ReturnType<typeof useSolver> }>()
</script>

<template>
  <p>{{ solver.state.value === 'judging' ? 'Checking the best answers …' : 'Looking for answers …' }}</p>
  <progress class="w-full" :value="solver.share.value" max="1" aria-label="Progress" />
  <p class="text-xs text-soft">{{ solver.looked.value }} of {{ solver.count.value || '…' }} combinations</p>
</template>
