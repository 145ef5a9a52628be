<script setup lang="ts">
import { partKinds, stationIds, type PartKindId } from '#core/job/fields'

/** The survey as a route along a rope: one knot a station, opened in place. */
const { q } = useWriting()
const bench = useJob()
const judging = useJudging()
const open = defineModel<PartKindId | null>('open', { required: true })
const toMeasure = computed(() => judging.assessment?.measureNext.map((m) => m.path) ?? [])
const nextOf = (kind: PartKindId): PartKindId | undefined => stationIds[stationIds.indexOf(kind) + 1]
/** On to the next station, its heading at the top of the screen. */
function goOn(kind: PartKindId) {
  open.value = kind
  void nextTick(() => {
    const heading = document.querySelector<HTMLElement>(`[data-station="${kind}"] h3 button`)
    heading?.scrollIntoView({ block: 'start' })
    heading?.focus({ preventScroll: true })
  })
}
const stations = computed(() =>
  !bench.document
    ? []
    : stationIds.map((kind) => ({
        kind,
        title: partKinds[kind].title,
        state: stationState(bench.document!, kind, toMeasure.value),
        summary: stationSummary(bench.document!, kind, q),
      })),
)
</script>

<template>
  <section aria-labelledby="walk-round" class="py-4">
    <h2 id="walk-round" class="px-5 pb-2 text-sm font-semibold text-soft">Walk-round</h2>
    <ol class="relative before:absolute before:inset-y-3 before:left-[1.62rem] before:w-[3px] before:bg-rope">
      <li
        v-for="station in stations"
        :key="station.kind"
        :data-station="station.kind"
        :class="open === station.kind && 'bg-card'"
      >
        <h3>
          <button
            type="button"
            class="relative flex min-h-11 w-full items-start gap-3 py-1.5 pr-3 pl-5 text-left font-sans"
            :aria-expanded="open === station.kind"
            @click="open = open === station.kind ? null : station.kind"
          >
            <span
              class="mt-1 grid size-4 shrink-0 place-items-center bg-paper"
              :class="open === station.kind && '!bg-card'"
            >
              <span
                class="block size-3"
                :class="
                  station.state === 'matters'
                    ? 'rounded-none border-2 border-dashed border-measure'
                    : station.state === 'gaps'
                      ? 'rounded-full border-2 border-rope'
                      : 'rounded-full bg-sea'
                "
              />
            </span>
            <span class="min-w-0">
              <span class="block font-semibold">{{ station.title }}</span>
              <span
                class="block truncate text-xs font-normal"
                :class="station.state === 'matters' ? 'text-measure' : 'text-soft'"
                >{{ station.state === 'matters' ? `${station.summary} · measure` : station.summary }}</span
              >
              <span class="sr-only">, {{ stationStateWord[station.state] }}</span>
            </span>
          </button>
        </h3>
        <StationFields
          v-if="open === station.kind"
          :kind="station.kind"
          class="pl-9 max-md:relative max-md:bg-card max-md:pl-3"
        />
        <!-- On the phone it stays above the bar: what is judged meanwhile moves the page, never the button under the thumb. -->
        <p
          v-if="open === station.kind && nextOf(station.kind)"
          class="px-3 pb-3 pl-12 max-md:sticky max-md:bottom-14 max-md:z-10 max-md:bg-card max-md:pt-2 max-md:pl-6"
        >
          <button
            type="button"
            class="act-quiet max-md:w-full"
            data-testid="next-station"
            @click="goOn(nextOf(station.kind)!)"
          >
            Next: {{ partKinds[nextOf(station.kind)!].title.toLowerCase() }}
          </button>
        </p>
      </li>
    </ol>
  </section>
</template>
