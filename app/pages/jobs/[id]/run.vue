<script setup lang="ts">
import { runIds, runKind, type RunId, type RunInputs } from '#core/simulation/run-kinds'
import { useTimeoutFn } from '@vueuse/core'
import { quantity, type Field } from '#core/job/fields'
import { mostLoadA } from '#core/simulation/plant'
import type { RunResult } from '#core/simulation/runs'
import { seriesCsv } from '#core/formats/series'
import { plain } from '../../../engine/client'

/** The system of the job in time. */
const judging = useJudging()
const { bench, problem, ready } = useJobPage('Run')
const runner = useRunner()
const run = ref<RunId>('driving-day')
const own = ref<Partial<Record<RunId, Partial<RunInputs>>>>({})
/** The systems to run: the specified one once there is one, until someone chooses. */
const picks = ref<string[] | null>(null)
const chosen = computed({
  get: () => picks.value ?? [bench.document?.specified ? 'specified' : 'new'],
  set: (ids) => {
    picks.value = ids
  },
})
const at = ref(0)
const place = ref<'port-larkspur' | 'hollin-fell' | 'file'>('port-larkspur')
const epwText = ref<string | null>(null)
const epwName = ref('')

const { result: basis } = useAsked(
  (engine, job, shop) => engine.runBasis(job, shop, plain(judging.found!.changes)),
  () => (ready.value ? bench.document : null),
)
const variants = computed(() => basis.value?.variants ?? [])
const picked = computed(() => variants.value.filter((v) => chosen.value.includes(v.id)))
const inputs = computed<RunInputs | null>(() =>
  basis.value ? { ...basis.value.inputs[run.value], ...own.value[run.value] } : null,
)
const results = computed(() => runner.results.value)
/**
 * The first chosen system in which lead-acid and lithium share a bus, with the largest currents of its loads and
 * chargers.
 */
const mixed = computed(() => picked.value.find((v) => v.plant.lfp && v.plant.houseLead)?.plant ?? null)
const mixedLoadA = computed(() => (mixed.value ? Math.max(1, Math.round(mostLoadA(mixed.value))) : 0))
const mixedChargeA = computed(() =>
  Math.max(
    10,
    Math.round((mixed.value?.chargers ?? []).reduce((sum, charger) => sum + charger.stages.maxA, 0)),
  ),
)
/** Whether the weather of a run is on its way. */
const fetching = ref(false)
const running = computed(() => fetching.value || runner.share.value !== null)
const titles = ref<string[]>([])
const hasAlternator = computed(() => Object.keys(bench.document?.alternators ?? {}).length > 0)
const first = computed<RunResult | null>(() => results.value[0] ?? null)

const entries: Readonly<Partial<Record<keyof RunInputs, Field>>> = {
  soc: quantity('Charge at the start', '%', 5, [0, 100], [0, 100], ''),
  days: quantity('Days', 'days', 1, [0.05, 366], [1, 14], ''),
  driveH: quantity('Engine runs', 'h', 0.5, [0, 24], [0, 8], ''),
  idleShare: quantity('Share of that at idle', '%', 5, [0, 100], [0, 100], ''),
  driveFrom: quantity('Engine from, hour', '', 1, [0, 23], [0, 23], ''),
  mainsH: quantity('On mains', 'h', 1, [0, 24], [0, 24], ''),
  generatorH: quantity('Generator, hours a day', 'h', 0.5, [0, 24], [0, 6], ''),
  mainsFrom: quantity('Mains from, hour', '', 1, [0, 23], [0, 23], ''),
  coldC: quantity('Air at its coldest', '°C', 1, [-50, 45], [-20, 20], ''),
  warmC: quantity('Air at its warmest', '°C', 1, [-50, 60], [0, 40], ''),
  clearness: quantity('Sun, share of a clear sky', '%', 5, [0, 100], [0, 100], ''),
  dayOfYear: quantity('Day of the year', '', 5, [1, 366], [1, 366], ''),
  latitude: quantity('Latitude', '°', 1, [-66, 66], [-60, 60], ''),
  tilt: quantity('Tilt of the panels', '°', 5, [0, 90], [0, 60], ''),
}
const perCent: readonly (keyof RunInputs)[] = ['soc', 'idleShare', 'clearness']
const shownInput = (key: keyof RunInputs): number =>
  Number(inputs.value![key]) * (perCent.includes(key) ? 100 : 1)
function setInput(key: keyof RunInputs, value: number | string | null) {
  const { [key]: _old, ...rest } = own.value[run.value] ?? {}
  own.value = {
    ...own.value,
    [run.value]:
      value === null ? rest : { ...rest, [key]: Number(value) / (perCent.includes(key) ? 100 : 1) },
  }
}

/** The weather of the place chosen; in words, why there is none. */
async function weatherText(): Promise<{ epw: string } | { problem: string }> {
  if (place.value === 'file')
    return epwText.value === null ? { problem: 'Choose a weather file first.' } : { epw: epwText.value }
  try {
    const answer = await fetch(`/weather/${place.value}.epw`)
    if (answer.ok) return { epw: await answer.text() }
  } catch {
    // Said below: the page may be without a connection.
  }
  return { problem: 'Cannot load the weather.' }
}

/** Counts the requests: a start that waited for its weather is cancelled by a newer one. */
let asked = 0
async function begin() {
  if (!inputs.value || picked.value.length === 0) return
  const turn = ++asked
  const order = { run: run.value, plants: picked.value.map((v) => v.plant), inputs: inputs.value }
  const names = picked.value.map((v) => v.title)
  fetching.value = runKind(order.run).needsWeather === true
  const weather = fetching.value ? await weatherText() : { epw: null }
  if (turn !== asked) return
  fetching.value = false
  if ('problem' in weather) return void (runner.problem.value = weather.problem)
  titles.value = names
  at.value = 0
  void runner.start({ ...order, epw: weather.epw })
}
/** A change starts the run a moment later; stopping calls that off too. */
const soon = useTimeoutFn(() => void begin(), 250, { immediate: false })
function stop() {
  asked++
  fetching.value = false
  soon.stop()
  runner.stop()
}
watch(
  [run, chosen, inputs, place, epwText],
  () => {
    if (inputs.value) soon.start()
  },
  { immediate: true },
)
async function weatherFile(event: Event) {
  const file = await takeText(event, 6)
  if (!file || file.problem !== undefined) return void (runner.problem.value = file?.problem ?? '')
  epwName.value = file.name
  epwText.value = file.text
  place.value = 'file'
}

const download = (): void =>
  handOver(
    `run-${first.value!.run}-${bench.document!.job.number}.csv`,
    seriesCsv(results.value, titles.value),
  )
</script>

<template>
  <JobShell topic="runs" title="Run" :about="runKind(run).about" :problem="problem" :ready="ready">
    <div
      v-if="inputs"
      class="grid gap-4 p-3 md:p-4"
      :class="
        results.length > 1 ? 'lg:grid-cols-[15rem_minmax(0,1fr)]' : 'lg:grid-cols-[15rem_minmax(0,1fr)_16rem]'
      "
    >
      <section
        aria-label="Run settings"
        class="grid content-start gap-3"
        :class="results.length > 1 && 'lg:row-span-2'"
      >
        <fieldset>
          <legend class="mb-1 font-semibold">Run</legend>
          <div class="grid gap-1 max-lg:grid-cols-2">
            <label
              v-for="id in runIds"
              :key="id"
              class="flex min-h-8 cursor-pointer items-center gap-2 border px-2 max-md:min-h-11"
              :class="run === id ? 'border-sea bg-card font-semibold' : 'border-transparent'"
              ><input v-model="run" type="radio" name="run" :value="id" class="size-4" />{{
                runKind(id).title
              }}</label
            >
          </div>
        </fieldset>
        <fieldset>
          <legend class="mb-1 font-semibold">Compare</legend>
          <label v-for="v in variants" :key="v.id" class="flex min-h-8 items-center gap-2 max-md:min-h-11"
            ><input v-model="chosen" type="checkbox" :value="v.id" class="size-5" />{{ v.title }}</label
          >
        </fieldset>
        <div class="grid gap-x-4 gap-y-1.5 sm:max-lg:grid-cols-2">
          <ValueEntry
            v-for="key in runKind(run).inputs"
            :key="`${run}/${key}`"
            :field="entries[key]!"
            :label="entries[key]!.label"
            :name="key"
            beside
            :model-value="shownInput(key)"
            @update:model-value="setInput(key, $event)"
          />
        </div>
        <div v-if="runKind(run).needsWeather">
          <label class="block"
            ><span class="font-semibold">Weather</span
            ><select v-model="place" class="entry">
              <option value="port-larkspur">Port Larkspur, invented</option>
              <option value="hollin-fell">Hollin Fell, invented</option>
              <option v-if="epwText" value="file">{{ epwName }}</option>
            </select></label
          ><label class="act-quiet mt-2 focus-within:outline-2 focus-within:outline-sea"
            >Weather file (EPW)<input type="file" accept=".epw" class="sr-only" @change="weatherFile"
          /></label>
        </div>
      </section>

      <section aria-label="Timeline" class="min-w-0 max-lg:order-first">
        <p v-if="runner.problem.value" role="alert" class="mb-2 border-l-4 border-bad bg-card px-3 py-2">
          {{ runner.problem.value }}
        </p>
        <div
          class="mb-2 flex min-h-9 items-center gap-3"
          role="status"
          data-testid="run-state"
          :data-state="running ? 'running' : first ? 'done' : 'idle'"
        >
          <RunProgress v-if="running" :runner="runner" @stop="stop" />
          <template v-else-if="first"
            ><span class="font-semibold">{{ runKind(first.run).title }}: {{ titles.join(' against ') }}</span
            ><button type="button" class="ml-auto act-quiet" @click="download">
              Export series (CSV)
            </button></template
          >
          <template v-else>{{
            chosen.length === 0 ? 'Choose something to run.' : 'Nothing has run yet.'
          }}</template>
        </div>
        <div v-if="first" class="border border-line bg-card p-2">
          <LazyRunChart :results="results" :titles="titles" :at="at" @point="at = $event" />
          <label class="mt-1 flex items-center gap-3 px-2"
            ><span class="whitespace-nowrap font-semibold">{{ momentOfRun(at, spanOfRun(first)) }}</span
            ><input
              v-model.number="at"
              type="range"
              class="min-h-8 w-full max-md:min-h-11"
              min="0"
              :max="Math.round(first.totals.hours * 3600)"
              :step="Math.max(10, Math.round((first.totals.hours * 3600) / 500))"
              aria-label="Playhead"
          /></label>
          <RunMoment :results="results" :titles="titles" :at="at" />
        </div>
        <LazySharingChart
          v-if="mixed?.lfp && mixed.houseLead"
          class="mt-3"
          :lfp="mixed.lfp"
          :lead="mixed.houseLead"
          :loads-a="mixedLoadA"
          :charge-a="mixedChargeA"
        />
        <RunFigures v-if="first" class="mt-2" :result="first" />
        <div v-if="first" class="mt-3 grid items-start gap-4 md:grid-cols-2">
          <AlternatorHeat v-if="hasAlternator" />
          <div class="border border-line bg-card p-3 text-xs">
            <h2 class="text-base">Assumed</h2>
            <ul class="list-disc pl-4">
              <li v-for="words in [...first.assumed, ...runner.notes.value]" :key="words">{{ words }}.</li>
            </ul>
          </div>
        </div>
      </section>

      <section
        v-if="first"
        aria-label="Results"
        class="grid min-w-0 content-start gap-4"
        :class="results.length > 1 && 'lg:col-start-2'"
      >
        <RunTotals :results="results" :titles="titles" />
        <RunEvents :result="first" @show="at = $event" />
      </section>
    </div>
  </JobShell>
</template>
