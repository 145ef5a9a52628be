<script setup lang="ts">
import type { ShownTest } from '#core/diagnosis/shown'

/** The drawing of the job with the probes of a test on it. */
const props = defineProps<{ test: ShownTest }>()
const { drawn } = useWiring(() => true)
const none = new Map<string, never>()
const chosen = computed({
  get: () => (props.test.run ? `runs/${props.test.run}` : null),
  set: () => undefined,
})
const probes = computed(() => ({ red: props.test.red, black: props.test.black }))
</script>

<template>
  <WiringDrawing v-if="drawn" v-model="chosen" :layout="drawn.layout" :verdicts="none" :probes="probes" />
  <p v-else class="text-soft" aria-busy="true">Drawing …</p>
</template>
