<script setup lang="ts">
import { h, type VNode } from 'vue'
import type { Layout } from '#core/drawing/layout'
import type { Shape } from '#core/drawing/shape'
import type { Palette } from '#core/drawing/look'
import { svgOf } from '#core/drawing/svg'
import type { Verdict } from '#core/system/verdict'

/** The single-line drawing: dragged, drawn nearer, and walked along by keys. */
const props = defineProps<{
  layout: Layout
  verdicts: ReadonlyMap<string, Verdict>
  /** Nodes on which the probes of a meter are put. */
  probes?: { readonly red: string | null; readonly black: string | null }
}>()
const chosen = defineModel<string | null>({ required: true })
const frame = useTemplateRef<HTMLElement>('frame')

/** Names of the theme’s colours, so that the drawing follows it. */
const palette: Palette = {
  ink: 'var(--ink)',
  soft: 'var(--soft)',
  strong: 'var(--sea)',
  paper: 'var(--card)',
  chosen: 'var(--measure)',
  verdicts: {
    suits: 'var(--suits)',
    'suits-once-changed': 'var(--changed)',
    'measure-first': 'var(--measure)',
    'does-not-suit': 'var(--bad)',
  },
}

const leastScale = 0.3
const mostScale = 3
/** Size of the drawing on the page; null: as the frame is wide. */
const scale = ref<number | null>(null)
/** In the frame of a phone the whole would be too small to read: there it begins nearer, to be moved by a finger. */
const readableScale = 0.75
const narrowPx = 500
onMounted(() => {
  const { clientWidth } = frame.value!
  if (clientWidth < narrowPx && clientWidth < props.layout.width * readableScale) scale.value = readableScale
})
const fitted = computed(() => scale.value === null)
const zoom = (by: number): void => {
  const now = scale.value ?? (frame.value ? frame.value.clientWidth / (props.layout.width + 28) : 1)
  scale.value = Math.min(mostScale, Math.max(leastScale, now * by))
}
function wheel(event: WheelEvent) {
  if (!event.ctrlKey) return
  event.preventDefault()
  zoom(event.deltaY < 0 ? 1.15 : 1 / 1.15)
}

/** A drag pans the drawing; a click selects. */
let from: { readonly x: number; readonly y: number; readonly left: number; readonly top: number } | null =
  null
function down(event: PointerEvent) {
  if (event.pointerType === 'touch' || !frame.value) return
  from = { x: event.clientX, y: event.clientY, left: frame.value.scrollLeft, top: frame.value.scrollTop }
}
function move({ clientX, clientY }: PointerEvent) {
  if (!from || !frame.value) return
  frame.value.scrollLeft = from.left - (clientX - from.x)
  frame.value.scrollTop = from.top - (clientY - from.y)
}
const up = (): void => {
  from = null
}
const idOf = (event: Event): string | null =>
  (event.target as Element).closest('[data-id]')?.getAttribute('data-id') ?? null
function choose(event: Event) {
  const id = idOf(event)
  if (id) chosen.value = id
}

/** Parts of the drawing joined to one part, before it and after it. */
const joined = computed(() => {
  const after = new Map<string, string[]>()
  const before = new Map<string, string[]>()
  const pathOf = new Map(props.layout.nodes.map((node) => [node.id, node.path ?? node.id]))
  const add = (map: Map<string, string[]>, key: string, value: string): unknown =>
    map.set(key, [...(map.get(key) ?? []), value])
  for (const { path, from: start, to } of props.layout.edges) {
    add(after, pathOf.get(start)!, path)
    add(before, path, pathOf.get(start)!)
    add(after, path, pathOf.get(to)!)
    add(before, pathOf.get(to)!, path)
  }
  return { after, before }
})
/** Sideways: the other runs from the same post. */
function beside(id: string, by: number): string | undefined {
  const [start] = joined.value.before.get(id) ?? joined.value.after.get(id) ?? []
  const all = start ? (joined.value.after.get(start) ?? joined.value.before.get(start) ?? []) : []
  const at = all.indexOf(id)
  return at < 0 ? undefined : all[(at + by + all.length) % all.length]
}
function walk(event: KeyboardEvent) {
  const id = chosen.value ?? idOf(event)
  const steps: Readonly<Record<string, () => string | undefined>> = {
    ArrowDown: () => joined.value.after.get(id ?? '')?.[0],
    ArrowUp: () => joined.value.before.get(id ?? '')?.[0],
    ArrowRight: () => beside(id ?? '', 1),
    ArrowLeft: () => beside(id ?? '', -1),
    '+': () => void zoom(1.2),
    '-': () => void zoom(1 / 1.2),
    '0': () => void (scale.value = null),
  }
  const step = steps[event.key]
  if (!step || event.ctrlKey || event.metaKey || event.altKey) return
  event.preventDefault()
  event.stopPropagation()
  const next = step()
  if (!next) return
  chosen.value = next
  void nextTick(() => {
    frame.value
      ?.querySelector(`[data-id="${CSS.escape(next)}"]`)
      ?.scrollIntoView({ block: 'nearest', inline: 'nearest' })
  })
}

const drawn = computed(() =>
  svgOf(props.layout, {
    palette,
    verdicts: props.verdicts,
    chosen: chosen.value,
    ...(props.probes ? { probes: props.probes } : {}),
  }),
)
const rendered = ({ tag, attributes, children }: Shape): VNode =>
  h(
    tag,
    attributes,
    children.map((child) => (typeof child === 'string' ? child : rendered(child))),
  )
/** The whole of it: as wide as the frame, or in its own size times the scale. */
const Picture = (): VNode => {
  const { attributes, children } = drawn.value
  const [width, height] = [Number(attributes.width), Number(attributes.height)]
  const size =
    scale.value === null
      ? { style: { width: '100%', maxWidth: `${width}px`, height: 'auto' } }
      : { width: width * scale.value, height: height * scale.value }
  const inside = children.map((child) => (typeof child === 'string' ? child : rendered(child)))
  return h('svg', { ...attributes, ...size, 'aria-hidden': 'true' }, inside)
}
</script>

<template>
  <div class="flex min-h-0 min-w-0 flex-col">
    <div class="flex flex-wrap items-center gap-2 pb-1 text-xs">
      <button type="button" class="act-quiet small px-2.5" aria-label="Zoom in" @click="zoom(1.25)">+</button>
      <button type="button" class="act-quiet small px-2.5" aria-label="Zoom out" @click="zoom(0.8)">−</button>
      <button type="button" class="act-quiet small" :disabled="fitted" @click="scale = null">
        Full width
      </button>
      <span class="text-soft max-md:hidden"
        >Arrow keys follow the runs. Thick lines are new, thin lines stay, crossed-out parts go. Dash-dot is
        negative. ✎ is set by hand.</span
      >
    </div>
    <div
      ref="frame"
      class="max-h-[calc(100dvh-13rem)] min-h-64 touch-pan-x touch-pan-y overflow-auto rounded-sm border border-line bg-card p-1 select-none focus-visible:outline-2"
      role="application"
      aria-label="Single-line drawing. Arrow keys move along the runs. The list below has the same content."
      tabindex="0"
      data-testid="drawing"
      @click="choose"
      @keydown="walk"
      @wheel="wheel"
      @pointerdown="down"
      @pointermove="move"
      @pointerup="up"
      @pointerleave="up"
    >
      <Picture />
    </div>
  </div>
</template>
