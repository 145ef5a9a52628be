<script setup lang="ts">
import { loadColumns, readLoadsCsv, writeLoadsCsv } from '#core/formats/loads-csv'
import { tableHeader, type TableProblem } from '#core/formats/table'
import { asAssumed, mostParts, partsOf } from '#core/job/document'
import { auditLoads, dayParts } from '#core/loads/audit'
import { loadLibrary, type TypicalLoad } from '#core/loads/library'
import { takeLoads, type TakenLoads } from '#core/loads/take'

/** The energy audit: the loads, and their use by part of the day. */
const { q } = useWriting()
const judging = useJudging()
const { bench, problem, ready } = useJobPage('Loads')
const audit = computed(() => (ready.value ? auditLoads(bench.document!, judging.settings) : null))
const rows = computed(() => (ready.value ? partsOf(bench.document!, 'loads') : []))
const shareOf = (path: string) => audit.value!.loads.find((load) => load.path === path)!
const most = computed(() => Math.max(1, ...Object.values(audit.value?.byPart ?? {})))
const said = ref('')
const fileProblems = ref<readonly TableProblem[]>([])
const libraryOpen = ref(false)
const sheet = useTemplateRef<HTMLElement>('sheet')
const groups = [...new Set(loadLibrary.map((load) => load.group))]

function addTypical({ name, values }: TypicalLoad) {
  const scale = Number(bench.document!.houseBank.nominalV?.value ?? 12) / 12
  bench.addPart('loads', {
    name,
    ...asAssumed({
      ...values,
      ...(values.amps === undefined ? {} : { amps: Math.round((values.amps / scale) * 100) / 100 }),
    }),
  })
  said.value = `${name} added with typical values. Correct them.`
}
function addEmpty() {
  const path = bench.addPart('loads', { name: '', ...asAssumed({ supply: 'dc' }) })
  void nextTick(() => firstStep(sheet.value!.querySelector(`[data-part="${path}"]`)!))
}
async function readFile(event: Event) {
  const file = await takeText(event, 1)
  if (!file || file.problem !== undefined) return void (said.value = file?.problem ?? said.value)
  const read = readLoadsCsv(file.text)
  fileProblems.value = read.problems
  if (read.count === 0 && read.problems.length > 0)
    return void (said.value = `Nothing was imported from ${file.name}. Its first row must name the columns: ${tableHeader(loadColumns).join(', ')}.`)
  const taken = takeLoads(bench.document!, read.loads)
  bench.edit(() => taken.job)
  said.value = `${file.name}: ${wordsOf(taken, read.count - read.loads.length)}.`
}
/** The result of importing the rows of a file. */
const wordsOf = ({ added, changed, same, left }: TakenLoads, bad: number): string =>
  [
    `${added} of ${added + changed + same + left + bad} loads added`,
    changed > 0 && `${changed} there already, corrected`,
    same > 0 && `${same} there already`,
    bad > 0 && `${bad} with faults left out`,
    left > 0 && `${left} left out, since a job holds ${mostParts}`,
  ]
    .filter(Boolean)
    .join(', ')
const download = () => handOver(`loads-${bench.document!.job.number}.csv`, writeLoadsCsv(bench.document!))
</script>

<template>
  <JobShell
    topic="system"
    title="Loads"
    about="What you run, for how long, and how much battery it uses."
    :problem="problem"
    :ready="ready"
  >
    <div v-if="audit" class="grid grid-cols-1 gap-4 p-3 md:p-4 xl:grid-cols-[minmax(0,1fr)_19rem]">
      <div class="grid min-w-0 grid-cols-1 content-start gap-4">
        <section class="border border-line bg-card p-3" aria-labelledby="load-list">
          <header class="flex flex-wrap items-center gap-2">
            <h2 id="load-list" class="mr-auto text-lg">
              {{
                rows.length === 0 ? 'No loads yet' : `${rows.length} ${rows.length === 1 ? 'load' : 'loads'}`
              }}
            </h2>
            <button type="button" class="act" @click="addEmpty">Add a load</button>
            <button type="button" class="act-quiet" @click="libraryOpen = true">Choose from library</button>
            <label class="act-quiet focus-within:outline-2 focus-within:outline-sea"
              >Import CSV<input type="file" accept=".csv,text/csv" class="sr-only" @change="readFile"
            /></label>
            <button v-if="rows.length" type="button" class="act-quiet" @click="download">Export CSV</button>
          </header>
          <p v-if="said" role="status" class="mt-1 text-soft">{{ said }}</p>
          <ul
            v-if="fileProblems.length"
            class="mt-1 max-h-40 overflow-y-auto border-l-4 border-bad pl-2 text-xs"
            aria-label="Faults in the file"
          >
            <li v-for="(p, i) in fileProblems" :key="i">
              Line {{ p.line }}<template v-if="p.column">, {{ p.column }}</template
              >: {{ p.reason }}
            </li>
          </ul>
          <p v-if="rows.length === 0" class="mt-3 text-soft">
            A boat without loads needs no battery. Add what runs, or measure it.
          </p>
          <div
            v-if="rows.length"
            ref="sheet"
            data-sheet
            class="mt-2"
            @keydown.enter="enterStep(sheet!, $event, false)"
          >
            <PartTable kind="loads" brief>
              <template #heads
                ><th
                  scope="col"
                  class="pb-1 text-left align-bottom text-xs leading-tight font-normal text-soft"
                >
                  Use a day
                </th></template
              >
              <template #figures="{ path }">
                <td
                  class="font-semibold max-md:flex max-md:items-end max-md:justify-end"
                  :class="shareOf(path).open.length > 0 && 'text-measure'"
                >
                  {{ shareOf(path).open.length ? 'unknown' : q(shareOf(path).ahADay, 'Ah') }}
                </td>
              </template>
            </PartTable>
          </div>
          <p v-if="audit.idleAh > 0 && rows.length" class="border-t border-line pt-2 text-soft">
            Inverters on without load: {{ q(audit.idleAh, 'Ah') }} a day.
          </p>
        </section>
        <MeasureLoads
          @saved="said = `${$event} ${$event === 1 ? 'load' : 'loads'} kept from the measurement.`"
        />
      </div>

      <aside class="grid content-start gap-4 max-xl:order-first" aria-label="Totals">
        <section class="border border-line bg-card p-4">
          <h2 class="text-lg">A day</h2>
          <p class="font-display text-3xl font-semibold" data-testid="daily">
            {{ audit.dailyAh === null ? 'unknown' : q(audit.dailyAh, 'Ah') }}
          </p>
          <p class="text-soft">
            {{
              audit.dailyAh === null
                ? 'Nothing listed or counted yet.'
                : audit.dailyFrom === 'counted'
                  ? `Counted on the job; the list makes ${q(audit.listedAh, 'Ah')}.`
                  : 'Added up from the list.'
            }}<template v-if="audit.usableAh && audit.dailyAh">
              The new battery has {{ q(audit.usableAh, 'Ah') }} usable:
              {{ q(audit.usableAh / audit.dailyAh, 'days') }} of it without any charge.</template
            >
          </p>
          <table class="mt-3 w-full">
            <caption class="sr-only">
              Energy by part of the day
            </caption>
            <tbody>
              <tr v-for="(word, part) in dayParts" :key="part">
                <th scope="row" class="w-px py-1 pr-3 text-left font-normal whitespace-nowrap">{{ word }}</th>
                <td aria-hidden="true">
                  <div class="h-3 bg-line/60">
                    <div class="h-full bg-sea" :style="{ width: `${(audit.byPart[part] / most) * 100}%` }" />
                  </div>
                </td>
                <td class="w-px py-1 pl-3 text-right whitespace-nowrap">{{ q(audit.byPart[part], 'Ah') }}</td>
              </tr>
            </tbody>
          </table>
        </section>
        <section class="border border-line bg-card p-4">
          <h2 class="text-lg">Largest current</h2>
          <dl class="grid grid-cols-[1fr_auto] gap-y-1">
            <dt>DC loads together</dt>
            <dd class="text-right font-semibold">{{ q(audit.atOnceA, 'A') }}</dd>
            <dt>with every inverter at full power</dt>
            <dd class="text-right font-semibold">{{ q(audit.highestA, 'A') }}</dd>
            <dt>while the hardest one starts</dt>
            <dd class="text-right font-semibold">{{ q(audit.surgeA, 'A') }}</dd>
            <dt>Essential, a day</dt>
            <dd class="text-right font-semibold">{{ q(audit.essentialAh, 'Ah') }}</dd>
          </dl>
        </section>
      </aside>
    </div>
    <AppDialog v-model:open="libraryOpen" title="Typical loads">
      <div class="max-h-[60vh] overflow-y-auto">
        <section v-for="group in groups" :key="group">
          <h3 class="mt-2 text-base">{{ group }}</h3>
          <ul>
            <li v-for="load in loadLibrary.filter((l) => l.group === group)" :key="load.name">
              <button
                type="button"
                class="flex min-h-9 w-full items-baseline justify-between gap-3 border-b border-line px-1 text-left hover:bg-paper max-md:min-h-11"
                @click="addTypical(load)"
              >
                <span>{{ load.name }}</span><span class="text-xs text-soft"
                  >{{
                    load.values.amps === undefined ? q(load.values.watts!, 'W') : q(load.values.amps, 'A')
                  }}, {{ q(load.values.hours, 'h') }} a day</span
                >
              </button>
            </li>
          </ul>
        </section>
      </div>
    </AppDialog>
  </JobShell>
</template>
