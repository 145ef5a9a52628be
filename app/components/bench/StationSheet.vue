<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import type { FieldPath } from '#core/job/document'

/** The frame of an open station: its rows scroll, its foot stays, and the keyboard moves from entry to entry. */
const props = defineProps<{ station: StationId; bearing?: ReadonlyMap<FieldPath, number> }>()
const emit = defineEmits<{ go: [station: StationId]; nextMeasurement: []; confirmRest: []; close: [] }>()
const element = useTemplateRef<HTMLElement>('element')
defineExpose({ element })
const after = computed(() => stationAfter(props.station))

const isTouched = useMediaQuery('(pointer: coarse)')

/** Enter moves to the next entry, with Ctrl to the next value to measure. */
function enter(event: KeyboardEvent) {
  if (!event.ctrlKey) return enterStep(element.value!, event, isTouched.value)
  if (!isEntered(event)) return
  event.preventDefault()
  emit('nextMeasurement')
}
/** `m` starts no number: in an untouched number field it moves to the next measurement, as elsewhere. */
function measureOn(event: KeyboardEvent) {
  const at = event.target
  if (!(at instanceof HTMLInputElement) || at.inputMode === 'text' || event.ctrlKey || event.metaKey) return
  const untouched = at.selectionStart === 0 && at.selectionEnd === at.value.length
  if (!untouched || !at.dataset.field) return
  event.preventDefault()
  emit('nextMeasurement')
}
/** The key that confirms the rest as assumed. It begins no value. */
function confirmByKey(event: KeyboardEvent) {
  const at = event.target as HTMLInputElement
  if (at.tagName === 'TEXTAREA' || (at.tagName === 'INPUT' && !at.closest('[data-field]'))) return
  event.preventDefault()
  emit('confirmRest')
}
function pageTo(station: StationId | null, event: KeyboardEvent) {
  if (!station || (event.target as HTMLElement).tagName === 'TEXTAREA') return
  event.preventDefault()
  emit('go', station)
}
</script>

<template>
  <div
    ref="element"
    data-sheet
    data-testid="station"
    class="flex min-h-0 flex-1 flex-col"
    @keydown.enter="enter"
    @keydown.m="measureOn"
    @keydown="$event.key === '#' && confirmByKey($event)"
    @keydown.page-down="pageTo(after, $event)"
    @keydown.page-up="pageTo(stationBefore(station), $event)"
  >
    <div class="relative min-h-0 flex-1 px-3 pb-3 md:overflow-y-auto md:px-4">
      <slot />
    </div>
    <!-- On the phone it stays above the bar: a new verdict moves the page, never the button under the thumb. -->
    <StationFoot
      class="max-md:sticky max-md:bottom-14 max-md:z-10"
      :station="station"
      :next="after"
      :bearing="bearing"
      @next="after ? $emit('go', after) : $emit('close')"
    />
  </div>
</template>
