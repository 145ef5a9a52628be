<script setup lang="ts">
/**
 * How far a run has come. A component of its own, so that each step of progress draws this line and not the
 * whole page.
 */
const { q } = useWriting()
defineEmits<{ stop: [] }>()
defineProps<{ runner: ReturnType<typeof useRunner> }>()
</script>

<template>
  <progress class="w-40" :value="runner.share.value ?? 0" max="1" aria-label="Progress" />
  <span>{{ q((runner.share.value ?? 0) * 100, '%') }}</span>
  <button type="button" class="act-quiet" @click="$emit('stop')">Stop</button>
</template>
