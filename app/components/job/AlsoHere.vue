<script setup lang="ts">
/** Others who have this job open, and where. */
const together = useTogether()
const people = computed(() => [
  ...new Set(together.others.map(({ person, view }) => (view ? `${person} (${view})` : person))),
])
</script>

<template>
  <span v-if="people.length" class="text-sea" data-testid="also-here"
    >Also here: {{ people.join(', ') }}</span
  >
</template>
