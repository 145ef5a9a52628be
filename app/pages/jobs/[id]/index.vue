<script setup lang="ts">
import { useEventListener, useMediaQuery } from '@vueuse/core'
import { partKinds } from '#core/job/fields'
import { asJson, ask, type StoredJob } from '../../../utils/api'

const device = useDeviceName()

const station = ref<StationId | null>(null)
const deleteOpen = ref(false)
/** On a phone one of the three columns shows. */
const column = ref<BenchColumn>('paths')
useBenchSteps(station, column)
const columns = [
  ['walk', 'Walk-round'],
  ['paths', 'Paths'],
  ['why', 'Why'],
] as const

/** On a phone one column shows at a time, and a station opens under its heading. */
const isPhone = useMediaQuery('(max-width: 767px)')
/** A phone builds a column when it is first shown: all of them would double the time to open a job. */
const lookedAt = reactive(new Set<BenchColumn>())
watch(column, (now) => lookedAt.add(now), { immediate: true })
const isMade = (of: BenchColumn) => !isPhone.value || lookedAt.has(of)
const judging = useJudging()
const view = useView()
const { bench, problem, id, ready } = useJobPage('Bench', {
  m: () => nextMeasurement(),
  w: () => void goToStation(station.value ?? 'job'),
  '[': () => stepCheck(-1),
  ']': () => stepCheck(1),
  t: () => tryFirst(),
})
useEventListener(window, 'online', () => bench.saveNow())

useSurveyPlace(id.value, ready, station, (at) => void goTo(at))

/** Opens the station of a value and puts the cursor in it; a value that only the wiring has is set there. */
async function goTo(path: string) {
  const at = stationOf(path)
  if (!isStation(at)) return void navigateTo(`/jobs/${id.value}/wiring`)
  station.value = at
  column.value = 'walk'
  view.wanted = path
  await nextTick()
  view.wanted = null
  const field =
    document.querySelector<HTMLElement>(`[data-field="${path}"]`) ??
    document.querySelector<HTMLElement>(`[data-station="${station.value}"] button`)
  if (!field) return
  focusStep(field)
  field.scrollIntoView({ block: 'center' })
}

/** On to a station: its heading at the top of a phone, the focus in its first entry elsewhere. */
async function goToStation(to: StationId) {
  station.value = to
  await nextTick()
  if (!isPhone.value) {
    const sheet = document.querySelector('[data-sheet]')
    if (sheet) firstStep(sheet)
    return
  }
  const heading = document.querySelector<HTMLElement>(`[data-station="${to}"] h3 button`)
  heading?.scrollIntoView({ block: 'start' })
  heading?.focus({ preventScroll: true })
}

/** Closes the station: the focus returns to the button that opened it, and a phone shows the verdicts. */
async function closeStation() {
  const closed = station.value
  if (closed === null) return
  station.value = null
  if (isPhone.value) column.value = 'paths'
  await nextTick()
  document.querySelector<HTMLElement>(`[data-station="${closed}"] h3 button`)?.focus()
}
/** Looked at before a dialog can close by the same key. */
function closeByKey({ key }: KeyboardEvent) {
  if (key === 'Escape' && !document.querySelector('[role="dialog"]')) void closeStation()
}
useEventListener(window, 'keydown', closeByKey, { capture: true })

let turn = -1
function nextMeasurement() {
  const list = judging.found?.measureNext ?? []
  if (list.length === 0) return
  turn = (turn + 1) % Math.min(list.length, 10)
  void goTo(list[turn]!.path)
}
watch(
  () => judging.found?.measureNext[0]?.path,
  () => {
    turn = -1
  },
)

function stepCheck(by: number) {
  const keys = judging.assessment?.checks.map((c) => c.key) ?? []
  const at = keys.indexOf(view.selectedCheck?.key ?? '')
  if (keys.length) view.selected = keys[(at + by + keys.length) % keys.length]!
}
function tryFirst() {
  const remedy = view.selectedCheck?.remedies[0]
  if (remedy) judging.tryRemedy(remedy)
}
function choose(key: string) {
  view.selected = key
  column.value = 'why'
}

async function copy() {
  const answer = await ask<StoredJob>(
    '/api/jobs',
    asJson('POST', { who: signedAs(device.value), copyOf: id.value }),
  )
  if (answer.kind === 'ok') await navigateTo(`/jobs/${answer.data.id}`)
  else bench.notice = problemOf(answer, 'The server cannot be reached. Nothing was copied.')
}

/** Whether a station is open next to the paths, which give way to it. */
const isOpen = computed(() => station.value !== null && !isPhone.value)
/** A table takes the whole width; on a wide screen the paths keep the room of their rulers. */
const isTable = computed(
  () => station.value !== null && station.value !== 'job' && 'columns' in partKinds[station.value],
)
const own = computed(() => judging.assessment?.checks.filter((c) => c.lane === null) ?? [])
</script>

<template>
  <main v-if="problem" class="mx-auto max-w-xl p-10 text-center">
    <AnchorMark class="mx-auto mb-3 size-12 text-soft" />
    <h1 class="text-2xl">This job cannot be opened</h1>
    <p class="mt-2">{{ problem }}</p>
    <NuxtLink to="/" class="act mt-4">Back to jobs</NuxtLink>
  </main>
  <main
    v-else-if="ready && bench.document && judging.assessment"
    class="flex min-h-dvh flex-col max-md:pb-16 md:h-dvh"
  >
    <BenchHead
      :surveying="column === 'walk' && station !== null"
      @check="choose"
      @measure="goTo"
      @copy="copy"
      @delete="deleteOpen = true"
    />
    <JobNotice />
    <div
      class="grid min-h-0 flex-1"
      :class="
        isOpen
          ? isTable
            ? 'md:grid-cols-[10.5rem_minmax(0,1fr)] 2xl:grid-cols-[10.5rem_minmax(0,1fr)_17rem]'
            : 'md:grid-cols-[10.5rem_minmax(0,1fr)] lg:grid-cols-[10.5rem_minmax(0,1fr)_minmax(17rem,24rem)]'
          : 'md:grid-cols-[minmax(15rem,19rem)_minmax(0,1fr)_minmax(15rem,18rem)]'
      "
    >
      <div
        v-if="isMade('walk')"
        class="relative border-line md:overflow-y-auto md:border-r"
        :class="column !== 'walk' && 'max-md:hidden'"
        tabindex="-1"
      >
        <WalkRound
          v-model:open="station"
          :in-place="isPhone"
          @go="goToStation"
          @next-measurement="nextMeasurement"
          @close="closeStation"
        />
      </div>
      <section
        v-if="isOpen"
        class="relative flex min-h-0 min-w-0 flex-col border-line bg-card lg:border-r"
        :aria-label="stationTitle(station!)"
      >
        <h2 class="flex items-baseline gap-3 px-4 pt-3 text-xl">
          {{ stationTitle(station!) }}
          <button type="button" class="ml-auto min-h-7 text-xs font-normal underline" @click="closeStation">
            Close
          </button>
        </h2>
        <StationPanel
          :station="station!"
          @go="goToStation"
          @next-measurement="nextMeasurement"
          @close="closeStation"
        />
      </section>
      <section
        v-if="isMade('paths') && (!isOpen || column !== 'why')"
        class="relative min-w-0 md:overflow-y-auto"
        aria-labelledby="paths"
        :class="[
          column !== 'paths' && 'max-md:hidden',
          isOpen && (isTable ? 'max-2xl:hidden' : 'max-lg:hidden'),
        ]"
      >
        <div class="grid gap-3 p-3 md:p-4">
          <div class="flex flex-wrap items-center gap-x-4 gap-y-1 text-xs text-soft">
            <h2 id="paths" class="mr-auto text-sm font-semibold">Charging paths into the battery</h2>
            <button v-if="isOpen" type="button" class="min-h-7 underline" @click="column = 'why'">Why</button>
            <span class="flex items-center gap-1.5"><span class="h-3 w-5 bg-window" />charge window</span
            ><span class="flex items-center gap-1.5"><span class="legend-rest h-3 w-5" />rests</span
            ><span class="flex items-center gap-1.5"><span class="h-3 w-0.5 bg-bad" />never above</span
            ><span class="flex items-center gap-1.5"><span class="legend-cut h-3 w-0.5" />BMS cuts</span>
          </div>
          <LaneCard
            v-for="drawing in judging.drawings"
            :key="drawing.id"
            :drawing="drawing"
            :brief="isOpen"
            @chosen="column = 'why'"
          />
          <StartPanel v-if="view.isBeginning" />
          <article
            v-if="own.length && !view.isBeginning"
            class="border border-line bg-card p-3"
            aria-label="The battery itself"
          >
            <header class="flex flex-wrap items-baseline gap-x-3">
              <h3 class="mr-auto text-lg">The battery itself</h3>
              <VerdictWord :verdict="judging.assessment.battery.verdict" />
            </header>
            <CheckChips :checks="own" named class="mt-2" @chosen="column = 'why'" />
          </article>
          <template v-if="!view.isBeginning">
            <MeasureNext @measure="goTo" />
            <ChangeList @chosen="choose" />
          </template>
        </div>
      </section>
      <div
        v-if="isMade('why') && (!isOpen || column === 'why')"
        class="relative border-line bg-card md:overflow-y-auto md:border-l"
        :class="[
          column !== 'why' && 'max-md:hidden',
          isOpen && (isTable ? 'max-2xl:hidden' : 'max-lg:hidden'),
        ]"
        tabindex="-1"
      >
        <button
          v-if="isOpen"
          type="button"
          class="mx-4 mt-3 min-h-7 text-xs underline"
          @click="column = 'paths'"
        >
          Back to the paths
        </button>
        <ReasonsPanel v-if="judging.assessment.lanes.length > 0 || !view.isBeginning" @measure="goTo" />
      </div>
    </div>
    <nav
      aria-label="Parts of the bench"
      class="fixed inset-x-0 bottom-0 z-10 grid grid-cols-3 border-t border-line bg-card md:hidden"
    >
      <button
        v-for="[key, word] in columns"
        :key="key"
        type="button"
        class="min-h-14 border-t-4 font-semibold"
        :class="column === key ? 'border-sea' : 'border-transparent text-soft'"
        :aria-pressed="column === key"
        @click="column = key"
      >
        <span class="flex items-center justify-center gap-2"
          ><VerdictMark v-if="key === 'paths'" :verdict="judging.found!.verdict" />{{ word }}</span
        >
      </button>
    </nav>
    <ConflictDialog />
    <DeleteDialog v-model:open="deleteOpen" />
    <JobDialogs @measure="goTo" @check="choose" />
  </main>
  <main v-else class="p-10 text-soft" aria-busy="true">Opening the job …</main>
</template>

<style scoped>
.legend-rest {
  background: repeating-linear-gradient(45deg, var(--rope) 0 2px, transparent 2px 6px);
}
.legend-cut {
  background: repeating-linear-gradient(var(--bad) 0 3px, transparent 3px 5px);
}
</style>
