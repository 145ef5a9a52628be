<script setup lang="ts">
import type { Footprint, Placed } from '#core/physics/packing'

/** The space from above, to scale, with the batteries in it. Equal scale for all columns. */
const { q } = useWriting()
const props = defineProps<{ space: Footprint; placed: readonly Placed[]; fits: boolean; name: string }>()
const said = computed(
  () =>
    `${props.name} in a space of ${q(props.space.widthMm, 'mm')} by ${q(props.space.depthMm, 'mm')}: ${props.fits ? `${props.placed.length === 1 ? 'fits' : `all ${props.placed.length} fit`}${props.placed.some((p) => p.turned) ? ', turned' : ''}` : 'does not fit'}`,
)
</script>

<template>
  <svg
    role="img"
    :aria-label="said"
    :viewBox="`-4 -4 ${space.widthMm + 8} ${space.depthMm + 8}`"
    class="block max-h-32 w-full"
  >
    <rect
      :width="space.widthMm"
      :height="space.depthMm"
      class="fill-paper stroke-edge"
      stroke-width="4"
      stroke-dasharray="16 10"
    />
    <g v-for="(p, i) in placed" :key="i">
      <rect
        :x="p.xMm"
        :y="p.yMm"
        :width="p.widthMm"
        :height="p.depthMm"
        rx="6"
        class="fill-window stroke-sea"
        stroke-width="4"
      />
      <circle
        v-for="at in p.turned
          ? [
              [p.xMm + p.widthMm / 2, p.yMm + 28],
              [p.xMm + p.widthMm / 2, p.yMm + p.depthMm - 28],
            ]
          : [
              [p.xMm + 28, p.yMm + p.depthMm / 2],
              [p.xMm + p.widthMm - 28, p.yMm + p.depthMm / 2],
            ]"
        :key="at.join()"
        :cx="at[0]"
        :cy="at[1]"
        r="11"
        class="fill-sea"
      />
    </g>
    <path
      v-if="!fits"
      :d="`M0 0L${space.widthMm} ${space.depthMm}M${space.widthMm} 0L0 ${space.depthMm}`"
      class="stroke-bad"
      stroke-width="5"
    />
  </svg>
</template>
