<script setup lang="ts">
import { fieldAt, knownAt, partAt, type FieldPath } from '#core/job/document'
import { fieldsWithUsual } from '#core/job/usual'
import { formatRange } from '#core/units/format'
import type { Known } from '#core/job/fields'
import { plausibleRange } from '#core/system/plausible'

/**
 * The foot of an open station: how to find the focused value, its usual range, and the way on. Its height is fixed,
 * so that nothing moves under a thumb.
 */
const props = defineProps<{
  station: StationId
  next: StationId | null
  bearing?: ReadonlyMap<FieldPath, number>
}>()
defineEmits<{ next: [] }>()
const { q, units } = useWriting()
const bench = useJob()
const view = useView()
const at = computed(() => (view.inHand?.startsWith(`${props.station}/`) ? fieldAt(view.inHand) : null))
const ref = computed(() => (at.value && bench.document ? partAt(bench.document, at.value.partPath) : null))
const known = computed(() =>
  bench.document && view.inHand
    ? (knownAt(bench.document, view.inHand) as Known<unknown> | undefined)
    : undefined,
)
const value = computed(() => known.value?.value)
const range = computed(() => {
  const { field } = at.value ?? {}
  if (field?.type !== 'quantity' || !ref.value || !bench.document) return null
  return plausibleRange(bench.document, ref.value, view.inHand!.slice(view.inHand!.lastIndexOf('/') + 1))
})
const between = computed(() => {
  const { field } = at.value ?? {}
  if (field?.type !== 'quantity' || !range.value) return ''
  return formatRange(...range.value, field.unit, q)
})
const unusual = computed(
  () =>
    typeof value.value === 'number' &&
    at.value?.field.type === 'quantity' &&
    range.value !== null &&
    isUnusual(value.value, range.value, at.value.field.limits) &&
    !view.kept.has(`${view.inHand} ${value.value}`),
)
const affects = computed(() => (view.inHand ? (props.bearing?.get(view.inHand) ?? 0) : 0))
const clear = (): void => {
  bench.setField(view.inHand!, { value: null })
  bench.setTyping(view.inHand!, null)
}
/** Keys that a numeric keypad lacks: a minus, and units other than the shop's. */
const keys = computed(() => {
  const { field } = at.value ?? {}
  if (field?.type !== 'quantity') return []
  return [...(field.limits[0] < 0 ? ['−'] : []), ...unitKeys(field.unit, units.value)]
})
function pressKey(key: string) {
  const entry = document.activeElement
  if (!(entry instanceof HTMLInputElement) || entry.dataset.field !== view.inHand) return
  entry.value = key === '−' ? signTurned(entry.value) : withUnit(entry.value, key)
  entry.dispatchEvent(new Event('input', { bubbles: true }))
}
/** Fills empty fields with typical values, as assumed. */
function assumeRest(): void {
  const { station } = props
  if (station !== 'job') bench.edit((job) => fieldsWithUsual(job, station))
}
</script>

<template>
  <div class="border-t border-line bg-card px-3 py-2">
    <div class="h-[3.3rem] overflow-y-auto text-xs leading-snug" data-testid="hint">
      <template v-if="at">
        <p v-if="unusual" role="status" class="font-semibold text-changed">
          {{ at.field.label }}: {{ at.field.type === 'quantity' ? q(value as number, at.field.unit) : '' }} is
          unusual here, where {{ between }} is common.
          <button
            type="button"
            class="min-h-6 underline max-md:min-h-11"
            @click="view.kept.add(`${view.inHand} ${value}`)"
          >
            Keep it
          </button>
        </p>
        <p>
          <strong>{{ at.field.label }}.</strong> {{ at.field.measure }}
          <template v-if="between && !unusual"> Typical: {{ between }}.</template>
          <template v-if="known?.from"> From {{ known.from }}.</template>
          <strong v-if="affects" class="text-measure">
            Affects {{ affects }} {{ affects === 1 ? 'check' : 'checks' }}.</strong
          >
        </p>
      </template>
      <p v-else class="text-soft">
        {{ stationAbout(station) }}
        <span class="max-md:hidden"
          >Enter: next field · Page Down: next station · Ctrl Enter: next measurement · M measured, D maker’s
          data, L label, C customer, A assumed, a capital for what follows too · = it is as assumed, # so is
          the rest</span
        >
      </p>
    </div>
    <div class="mt-1 flex gap-2">
      <button v-if="at && value != null" type="button" class="act-quiet" @click="clear">Unknown</button>
      <span v-if="keys.length" role="group" aria-label="Units" class="flex gap-1 md:hidden">
        <!-- A press leaves the focus in the entry, and the keypad up. -->
        <button
          v-for="unit in keys"
          :key="unit"
          type="button"
          class="act-quiet min-w-11 px-1.5"
          @mousedown.prevent
          @click="pressKey(unit)"
        >
          {{ unit }}
        </button>
      </span>
      <button
        v-if="station !== 'job'"
        type="button"
        class="act-quiet"
        :class="{ 'max-md:hidden': keys.length > 0 }"
        @click="assumeRest"
      >
        Use typical values for the rest
      </button>
      <button type="button" class="act ml-auto" data-testid="next-station" data-step @click="$emit('next')">
        {{ next ? `Next: ${stationTitle(next).toLowerCase()}` : 'Done' }}
      </button>
    </div>
  </div>
</template>
