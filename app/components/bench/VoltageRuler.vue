<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import type { Mark, Ruler } from '#core/compare/instruments'
import { verdictWords } from '#core/system/verdict'

/** Voltages of one lane against the battery's limits, to scale. Same scale on every lane. */
const { q, n } = useWriting()
const props = defineProps<{ ruler: Ruler; name: string }>()
const box = ref<HTMLElement | null>(null)
const { width } = useElementSize(box)

const edge = 14
const charWidth = 6.4
const tierHeight = 17
const bandHeight = 15
const inner = computed(() => Math.max(200, width.value || 420) - 2 * edge)
const share = (volts: number): number => (volts - props.ruler.from) / (props.ruler.to - props.ruler.from)
const x = (volts: number): number => edge + Math.min(1, Math.max(0, share(volts))) * inner.value
const isOff = ({ low, high }: Mark): boolean => share(high) < 0 || share(low) > 1

const valueWords = ({ low, high }: Mark): string =>
  low === high ? n(low, 'V') : `${n(low, 'V')}–${n(high, 'V')}`
const labelOf = (mark: Mark): string =>
  `${mark.label} ${valueWords(mark)}${isOff(mark) ? ' (off scale)' : ''}${mark.unknown ? ' ?' : ''}`

/** Marks with their label centred above them, lifted a tier where labels would meet. */
const placed = computed(() => {
  const ends: number[] = []
  return [...props.ruler.marks]
    .sort((a, b) => a.low - b.low)
    .map((mark) => {
      const label = labelOf(mark)
      const half = (label.length * charWidth) / 2
      const centre = Math.min(inner.value + 2 * edge - half, Math.max(half, (x(mark.low) + x(mark.high)) / 2))
      let tier = ends.findIndex((end) => centre - half > end + 6)
      if (tier < 0) tier = ends.length
      ends[tier] = centre + half
      return { mark, label, centre, tier }
    })
})
const tiers = computed(() => Math.max(1, ...placed.value.map((p) => p.tier + 1)))
const top = computed(() => tiers.value * tierHeight + 6)
const height = computed(() => top.value + bandHeight + 22)
const ticks = computed(() => {
  const step = (props.ruler.to - props.ruler.from) / 16
  return Array.from({ length: 17 }, (_, i) => ({ volts: props.ruler.from + i * step, major: i % 4 === 0 }))
})
const hatch = useId()
const said = computed(
  () =>
    `${props.name}: charge window ${q(props.ruler.window[0], 'V')} to ${q(props.ruler.window[1], 'V')}, never above ${q(props.ruler.absoluteV, 'V')}, protection cuts at ${q(props.ruler.bmsOverV, 'V')}, rests at ${q(props.ruler.rest[0], 'V')} to ${q(props.ruler.rest[1], 'V')}. ${props.ruler.marks.map((m) => `${m.label} ${valueWords(m)} V: ${verdictWords[m.verdict]}`).join('. ')}`,
)
</script>

<template>
  <div ref="box" class="min-w-0">
    <svg
      role="img"
      :aria-label="said"
      :width="inner + 2 * edge"
      :height="height"
      class="block max-w-full text-xs"
    >
      <defs>
        <pattern
          :id="`${hatch}-rest`"
          width="6"
          height="6"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <rect width="2" height="6" class="fill-rope" />
        </pattern>
        <pattern
          :id="`${hatch}-beyond`"
          width="6"
          height="6"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(-45)"
        >
          <rect width="6" height="6" class="fill-beyond" />
          <rect width="1.6" height="6" class="fill-bad" opacity=".45" />
        </pattern>
      </defs>
      <rect :x="edge" :y="top" :width="inner" :height="bandHeight" class="fill-line" opacity=".55" />
      <rect
        :x="x(ruler.rest[0])"
        :y="top"
        :width="x(ruler.rest[1]) - x(ruler.rest[0])"
        :height="bandHeight"
        :fill="`url(#${hatch}-rest)`"
      />
      <rect
        :x="x(ruler.window[0])"
        :y="top"
        :width="x(ruler.window[1]) - x(ruler.window[0])"
        :height="bandHeight"
        class="fill-window"
      />
      <rect
        :x="x(ruler.absoluteV)"
        :y="top"
        :width="edge + inner - x(ruler.absoluteV)"
        :height="bandHeight"
        :fill="`url(#${hatch}-beyond)`"
      />
      <rect :x="x(ruler.absoluteV) - 1" :y="top - 3" width="2" :height="bandHeight + 6" class="fill-bad" />
      <line
        :x1="x(ruler.bmsOverV)"
        :x2="x(ruler.bmsOverV)"
        :y1="top"
        :y2="top + bandHeight"
        class="stroke-bad"
        stroke-width="1.6"
        stroke-dasharray="3 2"
      />
      <line
        :x1="edge"
        :x2="edge + inner"
        :y1="top + bandHeight"
        :y2="top + bandHeight"
        class="stroke-ink"
        stroke-width="1.6"
      />
      <g v-for="tick in ticks" :key="tick.volts">
        <line
          :x1="x(tick.volts)"
          :x2="x(tick.volts)"
          :y1="top + bandHeight"
          :y2="top + bandHeight + (tick.major ? 6 : 3)"
          class="stroke-soft"
        />
        <text
          v-if="tick.major"
          :x="x(tick.volts)"
          :y="top + bandHeight + 18"
          text-anchor="middle"
          class="fill-soft text-[11px]"
        >
          {{ tick.volts }} V
        </text>
      </g>
      <g v-for="{ mark, tier } in placed" :key="mark.label" :class="verdictColour[mark.verdict]">
        <rect
          v-if="mark.low !== mark.high"
          :x="x(mark.low)"
          :y="top + 3"
          :width="Math.max(3, x(mark.high) - x(mark.low))"
          :height="bandHeight - 6"
          fill="currentColor"
          fill-opacity=".3"
          stroke="currentColor"
          stroke-width="1.5"
          :stroke-dasharray="mark.unknown ? '4 3' : 'none'"
        />
        <line
          :x1="(x(mark.low) + x(mark.high)) / 2"
          :x2="(x(mark.low) + x(mark.high)) / 2"
          :y1="(tiers - tier) * tierHeight - 1"
          :y2="mark.low === mark.high ? top + bandHeight : top + 3"
          stroke="currentColor"
          :stroke-width="mark.low === mark.high ? 2.5 : 1.2"
        />
        <g
          :transform="`translate(${(x(mark.low) + x(mark.high)) / 2} ${top - 2})`"
          stroke="var(--card)"
          stroke-width="1"
        >
          <circle v-if="mark.verdict === 'suits'" r="4.5" fill="currentColor" />
          <path v-else-if="mark.verdict === 'suits-once-changed'" d="M0-6 6 0 0 6-6 0Z" fill="currentColor" />
          <rect
            v-else-if="mark.verdict === 'measure-first'"
            x="-4.5"
            y="-4.5"
            width="9"
            height="9"
            fill="var(--card)"
            stroke="currentColor"
            stroke-width="1.8"
            stroke-dasharray="3 1.8"
          />
          <path
            v-else
            d="M-2.2-5.200H2.200L5.2-2.200V2.200L2.2 5.200H-2.200L-5.2 2.200V-2.200Z"
            fill="currentColor"
          />
        </g>
      </g>
      <text
        v-for="{ mark, label, centre, tier } in placed"
        :key="`${mark.label} label`"
        :x="centre"
        :y="(tiers - tier) * tierHeight - 4"
        text-anchor="middle"
        fill="currentColor"
        class="font-semibold [paint-order:stroke] [stroke-width:4px] [stroke:var(--card)]"
        :class="verdictColour[mark.verdict]"
      >
        {{ label }}
      </text>
    </svg>
  </div>
</template>
