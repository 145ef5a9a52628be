<script setup lang="ts">
import { specifiedBy } from '#core/solve/specify'
import { useMediaQuery } from '@vueuse/core'
import type { Adjustment, Answer } from '#core/solve/answer'
import { differencesOf } from '#core/solve/differences'
import { withSpecified } from '#core/job/as-specified'
import { atStage } from '#core/job/stage'
import { surveyOf } from '#core/job/document'
import { mostAlternatives, withAlternative } from '#core/job/quotation'
import type { Specified } from '#core/job/specified'
import { inSentence } from '#core/units/format'

/** Complete ways to make it suit, searched for and set side by side. */
const { q } = useWriting()
const judging = useJudging()
const { bench, problem, ready } = useJobPage('Specify')
const who = useDeviceName()
const solver = useSolver()
const { shelf, isOutOfReach } = useWholeShelf()
/** Answers as they were adjusted by hand, by the id they were found under. */
const byHand = shallowRef<
  Readonly<Record<string, { readonly answer: Answer; readonly adjustments: readonly Adjustment[] }>>
>({})
const selected = ref<string | null>(null)
const pinned = ref<string[]>([])
const busy = ref<string | null>(null)

/** Input of a search: the survey alone. A change of the quotation does not search again. */
const basis = computed(() =>
  ready.value ? JSON.stringify(surveyOf(bench.document!)) + JSON.stringify(judging.rules) : '',
)
function search() {
  if (!shelf.value || !bench.document) return
  byHand.value = {}
  selected.value = busy.value = null
  pinned.value = []
  void solver.start(surveyOf(bench.document), judging.settings, shelf.value)
}
watch(
  [basis, shelf],
  () => {
    if (basis.value && shelf.value) search()
  },
  { immediate: true },
)

const found = computed(() => solver.answers.value?.answers ?? [])
const batteryName = computed(() => bench.document?.candidate.name ?? 'chosen battery')
const nearest = computed(() => solver.answers.value?.nearest ?? null)
const shown = (id: string): Answer | null =>
  byHand.value[id]?.answer ?? found.value.find((a) => a.id === id) ?? null
const current = computed(() => selected.value ?? found.value[0]?.id ?? null)
/** The selected answer first, then pinned ones; three at most. */
const side = computed(() =>
  [...new Set([current.value, ...pinned.value])]
    .filter((id): id is string => id !== null && shown(id) !== null)
    .slice(0, 3),
)
const first = computed(() => side.value[0] ?? null)
/** Those pinned next to the one selected. */
const others = computed(() => side.value.slice(1))
const specified = computed(() => bench.document?.specified ?? null)
const isChosen = (answer: Answer) =>
  specified.value?.name === answer.name &&
  JSON.stringify(specified.value.changes) === JSON.stringify(answer.changes)

/** Data for the card of the shown answer. */
const cardOf = (id: string) => {
  const answer = shown(id)
  if (!answer) throw new Error(`There is no answer ${id}`)
  return {
    answer,
    adjustments: byHand.value[id]?.adjustments ?? [],
    isChosen: isChosen(answer),
    isPinned: pinned.value.includes(id),
    isBusy: busy.value === id,
    canOffer: bench.document?.specified !== undefined && offered.value.length < mostAlternatives,
    isOffered: offered.value.some(({ name }) => name === answer.name),
  }
}

async function adjust(id: string, change: Adjustment) {
  const before = found.value.find((a) => a.id === id)
  if (!before) return
  const others = (byHand.value[id]?.adjustments ?? []).filter((a) => a.step !== change.step)
  const own = byHand.value[id]?.adjustments.find((a) => a.step === change.step)
  const adjustments = [...others, { ...own, ...change }]
  busy.value = id
  const answer = await solver.adjusted(before, adjustments)
  // Steps keep their places, so that one left out can be taken in again.
  byHand.value = {
    ...byHand.value,
    [id]: {
      answer: {
        ...answer,
        id,
        steps: before.steps.map(
          (step) =>
            answer.steps.find((s) => s.ref.id === step.ref.id && s.ref.on === step.ref.on) ?? {
              ...step,
              settles: [],
            },
        ),
      },
      adjustments,
    },
  }
  busy.value = null
}
/** An answer as it would be specified, without the steps that were taken out by hand. */
function specifiedFrom(id: string): Specified | null {
  const answer = shown(id)
  if (!answer) return null
  const off = new Set((byHand.value[id]?.adjustments ?? []).filter((a) => a.off).map((a) => a.step))
  const kept = { ...answer, steps: answer.steps.filter((_, i) => !off.has(i)) }
  return specifiedBy(kept, signedAs(who.value), new Date().toISOString())
}
function choose(id: string) {
  const answer = specifiedFrom(id)
  if (answer) bench.edit((job) => atStage(withSpecified(job, answer), 'specified'))
}
const offered = computed(() => Object.values(bench.document?.quotation?.alternatives ?? {}))
/** Adds an answer to the quotation, for the customer to take in place of the chosen one. */
function offer(id: string) {
  const answer = specifiedFrom(id)
  if (!answer) return
  bench.edit((job) => ({
    ...job,
    quotation: withAlternative(job.quotation ?? {}, crypto.randomUUID(), answer),
  }))
}
const isWide = useMediaQuery('(min-width: 1024px)')
/** If the answers are above the detail, choosing one scrolls to it. */
async function select(id: string) {
  selected.value = id
  await nextTick()
  if (!isWide.value) document.querySelector('[data-answer]')?.scrollIntoView({ block: 'start' })
}
function pin(id: string) {
  pinned.value = pinned.value.includes(id)
    ? pinned.value.filter((p) => p !== id)
    : [...pinned.value, id].slice(-2)
}
const searching = computed(() => solver.state.value === 'searching' || solver.state.value === 'judging')
const worth = computed(() => solver.answers.value?.worth ?? [])
const shownAnswers = computed(() => found.value.map(({ id }) => shown(id)!))
/** Differences between the first shown answer and each other one. */
const differences = computed(() => {
  const [first, ...others] = side.value.map((id) => shown(id)!)
  return first ? others.map((other) => ({ other, words: differencesOf(first, other, q) })) : []
})
</script>

<template>
  <JobShell
    topic="answers"
    title="Specify"
    about="Complete answers from the parts on the shelf."
    :problem="problem"
    :ready="ready"
  >
    <div class="grid gap-4 p-3 md:p-4">
      <div class="grid min-w-0 items-start gap-4 lg:grid-cols-[minmax(0,1fr)_minmax(0,26rem)]">
        <div class="grid min-w-0 content-start gap-3">
          <section aria-label="Search" class="border border-line bg-card p-3">
            <p v-if="isOutOfReach || solver.problem.value" role="alert" class="text-bad">
              {{
                isOutOfReach
                  ? 'The shelf cannot be reached, so there is nothing to choose parts from.'
                  : solver.problem.value
              }}
            </p>
            <div role="status" data-testid="solve-state" :data-state="solver.state.value">
              <template v-if="searching"><SolveProgress :solver="solver" /></template>
              <p v-else-if="solver.state.value === 'done' && found.length">
                <template v-if="solver.answers.value?.batteryGoes != null"
                  ><strong>No answer keeps the {{ batteryName }}.</strong>
                  {{ solver.answers.value.batteryGoes }} These take another battery.
                </template>
                <strong>{{ found.length === 1 ? 'The best' : `The best ${found.length}` }}</strong> of
                {{ solver.count.value }} by cost, time to full, alternator heat, lost inverter power and
                number of changes.
                <template v-if="solver.untried.value > 0"
                  >A sure answer keeps the {{ batteryName }}, so no other battery was tried.
                </template>
                <template v-if="found.length > 1"
                  >The first follows the bench’s list of changes most closely.</template
                >
                <template v-if="found.length > 2"> The others are in order of cost.</template>
              </p>
              <p v-else-if="solver.state.value === 'done'">
                No part on the shelf makes this battery suit. The closest answers are shown with their
                remaining obstacles.
              </p>
              <p v-else-if="solver.state.value === 'stopped'">
                Stopped after {{ solver.looked.value }} of {{ solver.count.value }}.
              </p>
              <p v-else-if="!isOutOfReach">Loading the shelf…</p>
            </div>
            <p class="mt-2 flex gap-2">
              <button v-if="searching" type="button" class="act-quiet" @click="solver.stop()">Stop</button
              ><button v-else type="button" class="act-quiet" :disabled="!shelf" @click="search">
                Search again
              </button>
            </p>
          </section>

          <ul v-if="worth.length" aria-label="Value of a measurement" class="border border-line bg-card p-3">
            <li v-for="one in worth" :key="one.answer" class="flex items-start gap-2 py-0.5">
              <VerdictMark verdict="measure-first" size="small" class="mt-0.5" /><span
                >Measure
                {{ one.conditions.map((c) => `${measuredWords(c)} (${q(c.minutes, 'min')})`).join(' and ') }}:
                it could save <strong>{{ q(one.cost, 'money') }}</strong><template v-if="one.hours >= 0.25">
                  and {{ q(one.hours, 'h') }} of work</template
                >.</span
              >
            </li>
          </ul>
          <AnswersTable
            v-if="found.length"
            :answers="shownAnswers"
            :current="current"
            :pinned="pinned"
            :is-chosen="isChosen"
            @select="select"
          />
          <LazyAnswersChart
            v-if="found.length > 1"
            :answers="shownAnswers"
            :current="current"
            @select="select"
          />
        </div>
        <div class="min-w-0 lg:sticky lg:top-3 lg:max-h-[calc(100dvh-1.5rem)] lg:overflow-y-auto">
          <AnswerCard
            v-if="first"
            :key="first"
            v-bind="cardOf(first)"
            @adjust="adjust(first, $event)"
            @choose="choose(first)"
            @offer="offer(first)"
            @pin="pin(first)"
          />
          <AnswerCard
            v-else-if="nearest"
            :answer="nearest"
            :adjustments="[]"
            :is-chosen="false"
            :is-pinned="false"
            :is-busy="false"
            nearest
          />
        </div>
      </div>

      <div class="grid min-w-0 content-start gap-4">
        <section
          v-for="{ other, words } in differences"
          :key="other.id"
          :aria-label="`Compared with ${other.name}`"
          class="border border-line bg-card p-3"
        >
          <h2 class="text-base">Compared with {{ inSentence(other.name) }}</h2>
          <ul class="list-disc pl-4">
            <li v-for="sentence in words" :key="sentence">{{ sentence }}</li>
            <li v-if="words.length === 0">No difference.</li>
          </ul>
        </section>
        <div v-if="others.length" class="grid gap-3 md:grid-cols-2">
          <AnswerCard
            v-for="id in others"
            :key="id"
            v-bind="cardOf(id)"
            @adjust="adjust(id, $event)"
            @choose="choose(id)"
            @offer="offer(id)"
            @pin="pin(id)"
          />
        </div>
        <SpecifiedNow v-if="specified" />
        <SheetList />
        <SchoolTable />
      </div>
    </div>
  </JobShell>
</template>
