<script setup lang="ts">
import { beforeTurn } from '#core/labels/grey'
import type { Box } from '#core/labels/word'
import type { PhotoWords } from '../../labels/read-photo'

/** A photo of a label with the places of its values. */
defineProps<{
  address: string
  photo: PhotoWords | null
  boxes: readonly { readonly id: string; readonly box: Box; readonly isTicked: boolean }[]
  /** The value that is pointed at. */
  chosen: string | null
}>()
defineEmits<{ point: [id: string] }>()
const margin = 6
/** The corners of a box as they lie on the photo, which was turned to read it. */
function cornersOf({ left, top, right, bottom }: Box, photo: PhotoWords): string {
  const [l, t, r, b] = [left - margin, top - margin, right + margin, bottom + margin]
  return [
    { x: l, y: t },
    { x: r, y: t },
    { x: r, y: b },
    { x: l, y: b },
  ]
    .map((corner) => beforeTurn(corner, photo, photo.angle))
    .map(({ x, y }) => `${x},${y}`)
    .join(' ')
}
</script>

<template>
  <div class="relative w-fit max-w-full">
    <img :src="address" alt="Photo of the label" class="block max-h-[38vh] max-w-full lg:max-h-[60vh]" />
    <svg
      v-if="photo"
      class="absolute inset-0 h-full w-full"
      :viewBox="`0 0 ${photo.width} ${photo.height}`"
      aria-hidden="true"
    >
      <polygon
        v-for="{ id, box, isTicked } in boxes"
        :key="id"
        :points="cornersOf(box, photo)"
        :data-box="id"
        fill-opacity="0.18"
        vector-effect="non-scaling-stroke"
        :class="[
          id === chosen
            ? 'fill-changed stroke-changed'
            : isTicked
              ? 'fill-sea stroke-sea'
              : 'fill-none stroke-soft',
        ]"
        :stroke-width="id === chosen ? 4 : 2"
        :stroke-dasharray="isTicked || id === chosen ? undefined : '6 5'"
        @click="$emit('point', id)"
      />
    </svg>
  </div>
</template>
