<script setup lang="ts">
import type { Box } from '#core/labels/word'
import type { PhotoWords } from '../../labels/read-photo'

/** A photo of a label with the places of its values. */
const props = defineProps<{
  address: string
  photo: PhotoWords | null
  boxes: readonly { readonly id: string; readonly box: Box; readonly isTicked: boolean }[]
  /** The value that is pointed at. */
  chosen: string | null
}>()
defineEmits<{ point: [id: string] }>()
const margin = 6
/** Boxes lie as the photo was turned to read it. */
const turn = computed(() => {
  const { width = 0, height = 0, angle = 0 } = props.photo ?? {}
  return `rotate(${(-angle * 180) / Math.PI} ${width / 2} ${height / 2})`
})
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
      <g :transform="turn">
        <rect
          v-for="{ id, box, isTicked } in boxes"
          :key="id"
          :x="box.left - margin"
          :y="box.top - margin"
          :width="box.right - box.left + 2 * margin"
          :height="box.bottom - box.top + 2 * margin"
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
      </g>
    </svg>
  </div>
</template>
