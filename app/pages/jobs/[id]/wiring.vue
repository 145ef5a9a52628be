<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { worstByPath } from '#core/assessment/wired'
import { withField, withNewPart, withoutPart, type JobDocument } from '#core/job/document'
import { applyRemedy, type RemedyRef } from '#core/remedies/catalogue'
import { paperPalette } from '#core/drawing/look'
import { svgOf, writeSvg } from '#core/drawing/svg'
import { verdictWords } from '#core/system/verdict'
import { handOver } from '../../../utils/files'

/** The wiring of the job as it is specified: proposed, drawn, checked, and corrected by hand. */
const { bench, problem, ready } = useJobPage('Wiring')
const { drawn, pending, problem: failed } = useWiring(() => ready.value)
const chosen = ref<string | null>(null)
/** A phone shows the drawing when it is asked for: the list below says the same. */
const isPhone = useMediaQuery('(max-width: 767px)')
const showsDrawing = ref(false)
const wired = computed(() => drawn.value?.wired ?? null)

/** Scrolls to the selection, which is above the list. */
const panel = useTemplateRef<HTMLElement>('panel')
watch(chosen, () => {
  const block = window.innerWidth < 1024 ? 'start' : 'nearest'
  void nextTick(() => panel.value?.scrollIntoView({ block }))
})

/** The worst verdict of each run and fitting, if worse than Suits. */
const verdicts = computed(() => worstByPath({ checks: wired.value?.checks ?? [] }))
const open = computed(() => wired.value?.checks.filter(({ verdict }) => verdict !== 'suits') ?? [])
/** A run by its number, as on the drawing; anything else by its name. */
function subject(path: string): string {
  const run = wired.value?.network.runs.find(({ id }) => path === `runs/${id}`)
  return run?.number ?? wired.value?.checks.find(({ on }) => on === path)?.subject ?? path
}

/** A remedy of a surveyed cable is set on its runs: the survey stays as found. */
function take(remedy: RemedyRef) {
  const runs = wired.value?.network.runs.filter(({ cable }) => cable !== null && cable === remedy.on) ?? []
  bench.edit((job) =>
    runs.length > 0 && remedy.value !== undefined
      ? runs.reduce<JobDocument>(
          (next, { id }) => withField(next, `runs/${id}/areaMm2`, { value: remedy.value, how: 'assumed' }),
          job,
        )
      : applyRemedy(job, remedy),
  )
}
const toProposal = (): void => bench.edit((job) => (chosen.value ? withoutPart(job, chosen.value) : job))
const addBranch = (): void =>
  bench.edit((job) => withNewPart(job, 'branches', { what: { value: 'spare', how: 'assumed' } }).job)
function saveDrawing() {
  if (!drawn.value) return
  const svg = writeSvg(
    svgOf(drawn.value.layout, { palette: paperPalette, verdicts: verdicts.value, chosen: null }),
  )
  handOver(`${bench.document!.job.number}-wiring.svg`, svg, 'image/svg+xml')
}
</script>

<template>
  <JobShell
    topic="wiring"
    title="Wiring"
    about="The proposed wiring with its fuses. Values that you set by hand stay."
    :problem="problem"
    :ready="ready"
  >
    <div v-if="!drawn" class="p-5 text-soft" aria-busy="true">{{ failed || 'Working out the wiring …' }}</div>
    <div v-else class="px-4 pt-3 md:px-5" :aria-busy="pending">
      <div class="flex flex-wrap items-baseline gap-x-4 gap-y-1 pb-2">
        <p
          class="flex items-center gap-1.5 font-semibold"
          :class="verdictColour[wired!.verdict]"
          data-testid="wiring-verdict"
        >
          <VerdictMark :verdict="wired!.verdict" />{{
            open.length === 0
              ? 'The wiring suits'
              : `${verdictWords[wired!.verdict]}: ${open.length} ${open.length === 1 ? 'check' : 'checks'} of the wiring`
          }}
        </p>
        <span class="flex flex-wrap gap-2 text-xs">
          <button
            type="button"
            class="act-quiet small md:hidden"
            :aria-expanded="showsDrawing"
            @click="showsDrawing = !showsDrawing"
          >
            {{ showsDrawing ? 'Hide the drawing' : 'Show the drawing' }}
          </button>
          <button type="button" class="act-quiet small" @click="addBranch">Add a branch</button>
          <button type="button" class="act-quiet small" @click="saveDrawing">Export drawing (SVG)</button>
          <a class="act-quiet small" :href="`/api/jobs/${bench.id}/papers/wiring/pdf`" download
            >Open plan (PDF)</a
          >
        </span>
      </div>
      <ul
        v-if="open.length"
        class="flex flex-wrap gap-1 pb-2 text-sm"
        aria-label="What is to be changed or measured"
      >
        <li v-for="check in open" :key="check.key">
          <button
            type="button"
            class="inline-flex min-h-8 items-center gap-1.5 rounded-sm border border-line px-2 text-left max-md:min-h-11"
            :data-open="check.key"
            @click="chosen = check.on"
          >
            <VerdictMark :verdict="check.verdict" size="tiny" />{{ check.title }}:
            {{ subject(check.on) }}
          </button>
        </li>
      </ul>
      <div class="grid gap-4 lg:grid-cols-[minmax(0,1fr)_22rem]">
        <WiringDrawing
          v-if="!isPhone || showsDrawing"
          v-model="chosen"
          :layout="drawn.layout"
          :verdicts="verdicts"
        />
        <aside ref="panel" class="min-w-0 lg:max-h-[calc(100dvh-11rem)] lg:overflow-y-auto print:hidden">
          <WiringPanel
            v-if="chosen"
            :key="chosen"
            :wired="wired!"
            :path="chosen"
            @remedy="take"
            @proposal="toProposal"
          />
          <p v-else class="text-soft">Choose a run or a fuse to see its numbers, checks and settings.</p>
        </aside>
      </div>
      <WiringLists v-model="chosen" :wired="wired!" class="mt-5" />
      <p class="mt-4 border-l-4 border-changed pl-2">
        Sizes and ratings are starting points. The local code, the makers’ sheets and licensed practice
        decide. A licensed person does the mains side.
      </p>
    </div>
  </JobShell>
</template>
