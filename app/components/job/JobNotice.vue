<script setup lang="ts">
/** A message about the job, until it is dismissed. */
const bench = useJob()
</script>

<template>
  <p
    v-if="bench.notice"
    role="status"
    class="flex items-center justify-between gap-4 border-b border-line bg-window px-5 py-1.5"
  >
    <span>{{ bench.notice }}</span><button type="button" class="min-h-8 underline" @click="bench.notice = ''">
      Good
    </button>
  </p>
</template>
