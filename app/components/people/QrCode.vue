<script setup lang="ts">
import { renderSVG } from 'uqr'

/** An address as a code that a phone scans. */
const props = defineProps<{ address: string; label: string }>()
const source = computed(() => `data:image/svg+xml;utf8,${encodeURIComponent(renderSVG(props.address))}`)
</script>

<template>
  <img :src="source" :alt="label" class="size-40 bg-white" />
</template>
