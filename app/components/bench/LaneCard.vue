<script setup lang="ts">
import type { LaneDrawing } from '#core/compare/instruments'

/** One charging path: its ruler, its currents, its checks. */
const props = defineProps<{
  drawing: LaneDrawing
  /** Only the ruler and the deciding finding, while a station has the room. */
  brief?: boolean
}>()
const judging = useJudging()
const view = useView()
const lane = computed(() => judging.assessment?.lanes.find((l) => l.id === props.drawing.id))
const checks = computed(() => judging.assessment?.checks.filter((c) => c.lane === props.drawing.id) ?? [])
const deciding = computed(() => checks.value.find((c) => c.verdict === lane.value?.verdict))
defineEmits<{ chosen: [] }>()
</script>

<template>
  <article
    v-if="lane"
    :aria-label="drawing.name"
    class="border bg-card p-3"
    :class="view.selectedCheck?.lane === lane.id ? 'border-ink' : 'border-line'"
    :data-lane="lane.id"
    :data-verdict="lane.verdict"
  >
    <header class="mb-1 flex flex-wrap items-baseline gap-x-3">
      <h3 class="text-lg">{{ drawing.name }}</h3>
      <p class="mr-auto text-soft">{{ drawing.about }}</p>
      <VerdictWord :verdict="lane.verdict" />
    </header>
    <div class="grid gap-x-4 gap-y-2" :class="!brief && 'lg:grid-cols-[minmax(0,1fr)_13.5rem]'">
      <div class="flex min-w-0 flex-col">
        <VoltageRuler :ruler="drawing.ruler" :name="drawing.name" />
        <p v-if="deciding" class="mt-1">{{ deciding.summary }}</p>
      </div>
      <CurrentStack v-if="!brief" :stack="drawing.stack" :name="drawing.name" />
    </div>
    <CheckChips
      :checks="brief ? checks.filter(({ verdict }) => verdict !== 'suits') : checks"
      class="mt-2 border-t border-line pt-2"
      @chosen="$emit('chosen')"
    />
  </article>
</template>
