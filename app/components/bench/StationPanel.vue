<script setup lang="ts">
/** The open part of the walk-round: the job's own data or a station of the survey. */
defineProps<{ station: StationId }>()
defineEmits<{ go: [station: StationId]; nextMeasurement: []; close: [] }>()
</script>

<template>
  <JobStation
    v-if="station === 'job'"
    @go="$emit('go', $event)"
    @next-measurement="$emit('nextMeasurement')"
    @close="$emit('close')"
  />
  <StationFields
    v-else
    :key="station"
    :kind="station"
    @go="$emit('go', $event)"
    @next-measurement="$emit('nextMeasurement')"
    @close="$emit('close')"
  />
</template>
