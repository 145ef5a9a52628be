<script setup lang="ts">
import { withMended, withReading, withoutReading } from '#core/job/proving-edits'
import type { TakenReading } from '#core/job/proving'
import type { ShownCause, ShownTest } from '#core/diagnosis/shown'
import { worthWords } from '#core/diagnosis/worth'
import { isRecording, readProofCsv, readRecordingCsv } from '#core/formats/proof-csv'

/** Fitting and proving: order of work, tests, diagnosis, and the signed record. */
const { bench, problem, ready } = useJobPage('Prove')
const who = useDeviceName()
const {
  engine,
  steps,
  shown,
  essential,
  prepared,
  diagnosis,
  taught,
  proving,
  standing,
  readingOf,
  verdictOf,
  problem: failed,
} = useProve(() => ready.value)
const standIn = useStandIn(String(useRoute().params.id))
const views = { work: 'Work', tests: 'Tests', fitted: 'As fitted', practice: 'Practice' } as const
const view = ref<keyof typeof views>('work')
const testId = ref('')
const isRead = (one: ShownTest): boolean => verdictOf(one) !== 'open'
/** The essential tests, in the order in which they are made; all of them until they are chosen. */
const essentials = computed(() => {
  const all = shown.value?.tests ?? []
  return essential.value?.tests.flatMap((id) => all.find((one) => one.id === id) ?? []) ?? all
})
const more = computed(() => (shown.value?.tests ?? []).filter((one) => !essentials.value.includes(one)))
const test = computed(
  () => shown.value?.tests.find(({ id }) => id === testId.value) ?? essentials.value[0] ?? null,
)
/** The essential ones, and those of the others that were read or are chosen. */
const tests = computed(() => [
  ...essentials.value,
  ...more.value.filter((one) => isRead(one) || one.id === testId.value),
])
const count = computed(() => ({
  done: steps.value?.filter(({ id }) => proving.value.steps[id]?.state === 'done').length ?? 0,
  read: essentials.value.filter(isRead).length,
}))
const about = computed<Readonly<Record<keyof typeof views, string>>>(() => ({
  work: `${count.value.done}/${steps.value?.length ?? 0}`,
  tests: essential.value ? `${count.value.read}/${essentials.value.length}` : '',
  fitted: '',
  practice: '',
}))
const titleOf = (id: string): string => shown.value?.tests.find((one) => one.id === id)?.title ?? id
const now = (): Pick<TakenReading, 'when' | 'by'> => ({
  when: new Date().toISOString(),
  by: signedAs(who.value),
})
const take = (value: number, from: TakenReading['from']): void =>
  bench.edit((job) => withReading(job, test.value!.id, { value, from, ...now() }))
const again = (): void => bench.edit((job) => withoutReading(job, test.value!.id))
/** The simulated fault is repaired with the job. */
function mended({ id, words }: ShownCause) {
  bench.edit((job) => withMended(job, { cause: id, words, ...now() }))
  standIn.value = { ...standIn.value, hidden: false }
}
const index = computed(() => tests.value.findIndex(({ id }) => id === test.value?.id))
function step(by: number) {
  const next = tests.value[index.value + by]
  if (next) testId.value = next.id
}
/** The next test: the most informative one while a reading is wrong, otherwise the next in order. */
const following = computed(() => {
  const wanted = diagnosis.value?.looksWrong ? diagnosis.value.next?.test : undefined
  const isOpen = (one: ShownTest): boolean => !isRead(one) && one.id !== test.value?.id
  const open = tests.value.slice(index.value + 1).find(isOpen) ?? essentials.value.find(isOpen)
  return shown.value?.tests.find(({ id }) => id === wanted) ?? open ?? null
})
/** The worth of the readings so far; nothing while one of them is off and not settled. */
const worth = computed(() =>
  diagnosis.value && !diagnosis.value.looksWrong
    ? worthWords(count.value.read, essentials.value.length, diagnosis.value.risk)
    : '',
)
/** Whether the drawing with the probes on it is shown. */
const drawing = ref(false)
const fileProblem = ref('')
async function takeFile(event: Event) {
  const file = await takeText(event, 1)
  if (!file || file.problem !== undefined) return void (fileProblem.value = file?.problem ?? '')
  const tests = shown.value!.tests
  const read = (isRecording(file.text) ? readRecordingCsv : readProofCsv)(file.text, tests)
  fileProblem.value = tableProblem(file.name, { problems: read.problems }, read.readings.length) ?? ''
  bench.edit((job) =>
    read.readings.reduce(
      (next, { test: { id }, value }) => withReading(next, id, { value, from: 'file', ...now() }),
      job,
    ),
  )
}
</script>

<template>
  <JobShell
    topic="proving"
    title="Prove"
    about="Fit in order, measure, find faults, sign the record."
    :problem="problem"
    :ready="ready"
  >
    <div v-if="!steps" class="p-5 text-soft" aria-busy="true">
      {{ failed || 'Planning the work …' }}
    </div>
    <div v-else class="px-4 pt-3 md:px-5">
      <nav class="flex flex-wrap gap-1" aria-label="Parts of proving">
        <button
          v-for="(word, id) in views"
          :key="id"
          type="button"
          class="min-h-9 border-b-[3px] px-2 font-semibold max-md:min-h-11"
          :class="view === id ? 'border-sea' : 'border-transparent text-soft'"
          :aria-pressed="view === id"
          @click="view = id"
        >
          {{ word }} <span v-if="about[id]" class="font-normal text-soft">{{ about[id] }}</span>
        </button>
      </nav>
      <p v-if="failed" role="alert" class="text-bad">{{ failed }}</p>
      <WorkList v-if="view === 'work'" :steps="steps" :proving="proving" />
      <p v-else-if="!shown" class="mt-3 text-soft" aria-busy="true">Calculating the expected readings …</p>
      <div v-else-if="view === 'tests' && test" class="mt-3 grid gap-5 lg:grid-cols-[minmax(0,1fr)_26rem]">
        <div class="min-w-0 max-lg:hidden">
          <TestTable
            v-model="testId"
            :tests="essentials"
            :more="more"
            :reading-of="readingOf"
            :verdict-of="verdictOf"
          />
        </div>
        <div class="min-w-0 pb-20 lg:sticky lg:top-2 lg:self-start lg:pb-0">
          <div class="mb-2 flex h-1.5 gap-px" aria-hidden="true">
            <i
              v-for="one in tests"
              :key="one.id"
              class="flex-1"
              :class="
                one.id === test.id
                  ? 'bg-lamp'
                  : { within: 'bg-suits', outside: 'bg-bad', open: 'bg-line' }[verdictOf(one)]
              "
            />
          </div>
          <TestCard
            :test="test"
            :reading="readingOf(test)"
            :verdict="verdictOf(test)"
            :engine="engine"
            :title-of="titleOf"
            @take="take"
            @again="again"
            @single="testId = $event"
          />
          <details
            class="mt-2"
            :open="drawing"
            @toggle="drawing = ($event.target as HTMLDetailsElement).open"
          >
            <summary class="min-h-8 cursor-pointer py-1 underline max-md:min-h-11">On the drawing</summary>
            <ProbeDrawing v-if="drawing" :test="test" />
          </details>
          <CauseList
            v-if="diagnosis && standing.size > 0"
            :diagnosis="diagnosis"
            :title-of="titleOf"
            whole
            can-mend
            class="mt-3"
            @measure="testId = $event"
            @mended="mended"
          />
          <p v-else-if="!prepared" class="mt-3 text-soft" aria-busy="true">Choosing the essential tests …</p>
          <p v-if="worth" class="mt-3" data-testid="worth">{{ worth }}</p>
          <details class="mt-3 lg:hidden">
            <summary class="min-h-11 cursor-pointer py-1 underline">All tests</summary>
            <TestList v-model="testId" :tests="essentials" :more="more" :verdict-of="verdictOf" />
          </details>
          <details class="mt-3">
            <summary class="min-h-8 cursor-pointer py-1 underline max-md:min-h-11">
              Instruments and files
            </summary>
            <p class="flex flex-wrap items-center gap-3 text-sm">
              <label class="act-quiet cursor-pointer max-md:min-h-11"
                >Readings from a file (CSV)<input
                  type="file"
                  accept=".csv,text/csv"
                  class="sr-only"
                  @change="takeFile"
              /></label>
              <label class="inline-flex items-center gap-1.5 max-md:min-h-11"
                ><input v-model="standIn.hidden" type="checkbox" data-testid="hidden-fault" />The simulated
                instruments hide a fault</label
              >
            </p>
            <p v-if="fileProblem" role="alert" class="text-bad">{{ fileProblem }}</p>
          </details>
          <div
            class="mt-3 flex gap-2 max-lg:fixed max-lg:inset-x-0 max-lg:bottom-0 max-lg:z-10 max-lg:border-t max-lg:border-line max-lg:bg-card max-lg:p-3"
          >
            <button type="button" class="act-quiet max-md:min-h-13" :disabled="index <= 0" @click="step(-1)">
              Back
            </button>
            <button
              type="button"
              class="act-quiet max-md:min-h-13"
              :disabled="index >= tests.length - 1"
              @click="step(1)"
            >
              Skip
            </button>
            <button
              type="button"
              class="act min-w-0 flex-1 max-md:min-h-13"
              :disabled="!following"
              data-testid="next-test"
              @click="following && (testId = following.id)"
            >
              <span class="truncate">{{
                following ? `Next: ${following.title}` : 'All essential tests done'
              }}</span>
            </button>
          </div>
        </div>
      </div>
      <FittedView
        v-else-if="view === 'fitted'"
        :shown="shown"
        :proving="proving"
        :taught="taught"
        class="mt-3"
      />
      <PracticeView
        v-else-if="view === 'practice'"
        :shown="shown"
        :prepared="prepared"
        :engine="engine"
        class="mt-3"
      />
      <p class="mt-5 border-l-4 border-changed pl-2">
        Follow the makers’ instructions, the local code and licensed practice. These readings help you; they
        are not a certificate.
      </p>
    </div>
  </JobShell>
</template>
