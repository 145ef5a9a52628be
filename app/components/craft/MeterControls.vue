<script setup lang="ts">
import type { Meter } from '../../composables/meter'

/** Where the readings of a test come from: the demo meter, a logger, or a recording. */
defineProps<{ meter: Meter; /** Whether what the demo meter needs is entered. */ isReady: boolean }>()
defineEmits<{ start: [] }>()
</script>

<template>
  <div>
    <p class="my-2 flex flex-wrap gap-2">
      <button
        v-if="!meter.isRunning.value"
        type="button"
        class="act"
        :disabled="!isReady"
        @click="$emit('start')"
      >
        Start the demo meter
      </button>
      <button v-else type="button" class="act" @click="meter.stop()">Stop</button>
      <ConnectLogger :disabled="meter.isRunning.value" @connect="meter.connect" />
      <label class="act-quiet focus-within:outline-2 focus-within:outline-sea"
        >Import a recording<input type="file" accept=".csv,text/csv" class="sr-only" @change="meter.load"
      /></label>
    </p>
    <p class="text-xs text-soft"><slot /></p>
    <p v-if="meter.problem.value" role="alert" class="mt-1 text-bad">{{ meter.problem.value }}</p>
  </div>
</template>
