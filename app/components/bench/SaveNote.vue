<script setup lang="ts">
/** The saving state in words. */
const bench = useJob()
const words = computed(() => {
  switch (bench.save.kind) {
    case 'saved':
      return 'saved'
    case 'saving':
      return 'saving …'
    case 'unsaved':
      return 'kept on this device, saving soon'
    case 'unreachable':
      return 'offline: kept on this device, trying again'
    case 'conflict':
      return 'changed by two people: choose'
    case 'full':
      return 'this browser has no room left to keep changes'
    case 'refused':
      return `not saved: ${bench.save.error}`
  }
})
const tone = computed(() =>
  bench.save.kind === 'saved'
    ? 'text-suits'
    : ['refused', 'full', 'conflict'].includes(bench.save.kind)
      ? 'text-bad'
      : bench.save.kind === 'unreachable'
        ? 'text-changed'
        : 'text-soft',
)
</script>

<template>
  <span role="status" data-testid="save-state" :data-state="bench.save.kind" :class="tone">{{ words }}</span>
</template>
