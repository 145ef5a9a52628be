<script setup lang="ts">
/** The survey as a route along a rope: one knot a station, opened in place. */
const { q } = useWriting()
const bench = useJob()
const judging = useJudging()
/** On a phone a station opens under its heading; elsewhere in the room next to. */
defineProps<{ inPlace: boolean }>()
const emit = defineEmits<{ go: [station: StationId]; nextMeasurement: []; close: [] }>()
const open = defineModel<StationId | null>('open', { required: true })
const toMeasure = computed(() => judging.found?.measureNext.map((m) => m.path) ?? [])
const knots: Readonly<Record<StationState, string>> = {
  matters: 'size-3 rounded-none border-2 border-dashed border-measure',
  gaps: 'size-3 rounded-full border-2 border-rope',
  empty: 'size-1.5 rounded-full bg-rope',
  done: 'size-3 rounded-full bg-sea',
}
const stations = computed(() =>
  !bench.document
    ? []
    : stationIds.map((id) => ({
        id,
        title: stationTitle(id),
        state: stateOf(bench.document!, id, toMeasure.value),
        summary: summaryOf(bench.document!, id, q),
      })),
)
</script>

<template>
  <section aria-labelledby="walk-round" class="py-4">
    <h2 id="walk-round" class="px-5 pb-2 text-sm font-semibold text-soft">Walk-round</h2>
    <ol class="relative before:absolute before:inset-y-3 before:left-[1.62rem] before:w-[3px] before:bg-rope">
      <li
        v-for="station in stations"
        :key="station.id"
        :data-station="station.id"
        :class="open === station.id && 'bg-card'"
      >
        <h3>
          <button
            type="button"
            class="relative flex min-h-11 w-full scroll-mt-10 items-start gap-3 py-1.5 pr-3 pl-5 text-left font-sans"
            :aria-expanded="open === station.id"
            @click="open = open === station.id ? null : station.id"
          >
            <span
              class="mt-1 grid size-4 shrink-0 place-items-center"
              :class="open === station.id ? 'bg-card' : 'bg-paper'"
            >
              <span class="block" :class="knots[station.state]" />
            </span>
            <span class="min-w-0">
              <span class="block truncate font-semibold">{{ station.title }}</span>
              <span
                class="block truncate text-xs font-normal"
                :class="station.state === 'matters' ? 'text-measure' : 'text-soft'"
                >{{ station.state === 'matters' ? `${station.summary} · measure` : station.summary }}</span
              >
              <span class="sr-only">, {{ stationStateWord[station.state] }}</span>
            </span>
          </button>
        </h3>
        <StationPanel
          v-if="inPlace && open === station.id"
          :station="station.id"
          class="relative bg-card"
          @go="emit('go', $event)"
          @next-measurement="emit('nextMeasurement')"
          @close="emit('close')"
        />
      </li>
    </ol>
  </section>
</template>
