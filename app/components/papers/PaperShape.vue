<script setup lang="ts">
import { h, type VNode } from 'vue'
import type { Shape } from '#core/drawing/shape'

/** A drawing of a paper. */
const props = defineProps<{ drawing: Shape; label: string }>()
const nodeOf = (piece: Shape | string): VNode | string =>
  typeof piece === 'string' ? piece : h(piece.tag, piece.attributes, piece.children.map(nodeOf))
const Drawn = () => {
  const { attributes, children } = props.drawing
  return h('svg', { ...attributes, role: 'img', 'aria-label': props.label }, children.map(nodeOf))
}
</script>

<template>
  <Drawn class="paper-drawing" />
</template>

<style scoped>
/* A drawing names the letters of the printed paper. */
.paper-drawing,
.paper-drawing :deep(text) {
  font-family: inherit;
}
</style>
