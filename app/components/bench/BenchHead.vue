<script setup lang="ts">
import { useElementVisibility } from '@vueuse/core'
import { inSentence } from '#core/units/format'
import { remedyLabel } from '#core/remedies/catalogue'
import { changesToMake } from '#core/verdict/to-change'
import type { FieldPath } from '#core/job/document'

/** The job, its one verdict with the reason, and the next thing to do. */
const { q } = useWriting()
/**
 * While a station is open on a phone, the head has two lines. Its height never changes with its words: a new
 * verdict must move nothing under a thumb.
 */
defineProps<{ surveying: boolean }>()
const bench = useJob()
const account = useAccount()
const judging = useJudging()
const view = useView()
defineEmits<{ check: [key: string]; measure: [path: FieldPath]; copy: []; delete: [] }>()
/** The head stands only once the job is open and checked. */
const document = computed(() => bench.document!)
const found = computed(() => judging.found!)
const job = computed(() => document.value.job)
/** Open measurements: those of the answer, once one is chosen. */
const next = computed(() => (judging.specified ?? found.value).measureNext[0])
const changes = computed(() => changesToMake(found.value, judging.assessment!.checks, document.value, q))
const change = computed(() => changes.value.find(({ settles }) => settles.length > 0))
/** Whether an answer is chosen: then both verdicts show. */
const isAnswered = computed(() => document.value.specified !== undefined)
const fix = computed(() => {
  const check = judging.assessment!.checks.find((c) => c.key === found.value.decidedBy)
  return check?.verdict === 'does-not-suit' && check.remedies[0]
    ? { remedy: check.remedies[0], check: check.key }
    : null
})
const count = (n: number) => (n === 1 ? '1 check' : `${n} checks`)
const battery = computed(() => document.value.candidate.name)
const volts = computed(() => {
  const house = document.value.houseBank.nominalV?.value
  const chassis = Object.values(document.value.alternators)
    .map((a) => a.nominalV?.value)
    .find((v) => v && v !== house)
  return house ? (chassis ? `${chassis} V chassis, ${house} V house` : `${house} V`) : ''
})
/** The reason for the chosen answer if it does not suit, otherwise for the survey. */
const reason = computed(() =>
  judging.specified && judging.specified.verdict !== 'suits' ? judging.specified.reason : found.value.reason,
)
const headline = useTemplateRef<HTMLElement>('headline')
const headSeen = useElementVisibility(headline, { initialValue: true })
</script>

<template>
  <header
    class="grid grid-cols-1 items-start gap-x-6 gap-y-2.5 border-b border-line bg-card px-4 py-3 md:grid-cols-[minmax(0,1fr)_20rem] md:px-5"
  >
    <div class="min-w-0 md:h-28 md:overflow-y-auto" role="region" aria-label="Verdict" tabindex="0">
      <p class="text-soft" :class="surveying && 'max-md:truncate'">
        Job {{ job.number }}<template v-if="job.customer"> · {{ job.customer }}</template> ·
        <strong class="text-ink">{{ job.name || 'unnamed' }}</strong><template v-if="volts">
          · {{ volts }}</template
        ><template v-if="battery"> · battery: {{ battery }}</template> · <SaveNote /><AlsoHere
          class="ml-2"
        /><span v-if="judging.looksAhead" data-testid="ahead"> · looking ahead …</span
        ><HelpLink topic="verdicts" class="ml-1.5 align-middle max-md:hidden" />
      </p>
      <p v-if="judging.aheadProblem" role="alert" class="text-bad">
        This verdict is from before your last change. {{ judging.aheadProblem }}
      </p>
      <h1
        ref="headline"
        class="mt-0.5 flex flex-wrap items-center gap-x-5 gap-y-0.5 leading-tight"
        :class="[
          isAnswered ? 'text-lg max-md:text-base' : 'text-2xl max-md:text-xl',
          surveying && 'max-md:h-8 max-md:overflow-hidden max-md:!text-base',
        ]"
        data-testid="headline"
        :data-verdict="judging.found!.verdict"
      >
        <JobVerdict />
      </h1>
      <p class="mt-1 max-w-[52rem] text-pretty" :class="surveying && 'max-md:hidden'" data-testid="reason">
        {{ reason }}
      </p>
    </div>
    <aside
      class="w-full bg-harbour px-4 py-2.5 text-on-harbour md:min-h-24"
      :class="surveying && 'max-md:hidden'"
      aria-label="Next"
    >
      <p class="flex items-center justify-between text-xs font-semibold text-lamp">
        Next<kbd v-if="next" class="key max-md:hidden">m</kbd>
      </p>
      <button
        v-if="next"
        type="button"
        class="mt-0.5 block w-full text-left"
        data-testid="next"
        @click="$emit('measure', next.path)"
      >
        <span class="font-semibold underline underline-offset-2"
          >{{ next.part }}: {{ inSentence(next.label) }}</span
        >.
        <span>{{ next.how }}</span>
        <span class="block text-lamp">{{
          next.settles.length
            ? `It settles ${count(next.settles.length)}.`
            : `It affects ${count(next.bearsOn.length)}.`
        }}</span>
      </button>
      <p v-else-if="judging.specified?.verdict === 'suits'" class="mt-0.5" data-testid="next">
        The specified answer suits. Next
        <NuxtLink :to="`/jobs/${bench.id}/wiring`" class="font-semibold underline underline-offset-2"
          >check the wiring</NuxtLink
        >, then
        <NuxtLink :to="`/jobs/${bench.id}/prove`" class="font-semibold underline underline-offset-2"
          >fit and prove it</NuxtLink
        >.
      </p>
      <NuxtLink
        v-else-if="isAnswered"
        :to="`/jobs/${bench.id}/specify`"
        class="mt-0.5 block font-semibold underline underline-offset-2"
        data-testid="next"
        >The chosen answer no longer suits. Choose another.</NuxtLink
      >
      <button
        v-else-if="fix"
        type="button"
        class="mt-0.5 block w-full text-left"
        data-testid="next"
        @click="$emit('check', fix.check)"
      >
        Nothing left to measure. Possible fix:
        <span class="font-semibold underline underline-offset-2">{{
          inSentence(remedyLabel(fix.remedy, q))
        }}</span>.
      </button>
      <button
        v-else-if="change"
        type="button"
        class="mt-0.5 block w-full text-left"
        data-testid="next"
        @click="$emit('check', change.settles[0]!)"
      >
        <span class="font-semibold underline underline-offset-2">{{
          change.part ? `${change.part}: ${inSentence(change.label)}` : change.label
        }}</span>.
        <span class="text-lamp">{{
          changes.length === 1 ? 'This is the only change.' : `This is 1 of ${changes.length} changes.`
        }}</span>
      </button>
      <p v-else-if="view.isBeginning" class="mt-0.5" data-testid="next">
        Answer the three questions below. A first verdict follows.
      </p>
      <p v-else class="mt-0.5" data-testid="next">
        Nothing left to measure or change. Print the summary for the customer.
      </p>
    </aside>
    <div class="flex min-w-0 flex-wrap items-center gap-x-3 gap-y-1 md:col-span-2">
      <JobTabs class="mr-auto" />
      <div class="flex flex-wrap gap-2 text-xs">
        <JobActions>
          <a :href="`/api/jobs/${bench.id}/file`" download class="act-quiet tiny">Job file</a>
          <button type="button" class="act-quiet tiny" @click="$emit('copy')">Copy job</button>
          <PinJob />
          <button
            type="button"
            class="act-quiet tiny"
            :disabled="!account.mayDecide"
            :title="account.mayDecide ? undefined : needsInstaller"
            @click="$emit('delete')"
          >
            Delete
          </button>
        </JobActions>
      </div>
    </div>
  </header>
  <!-- On a phone the verdict stays while the head is out of sight. It lies over, so that nothing moves. -->
  <p
    v-if="!headSeen"
    class="fixed inset-x-0 top-0 z-20 flex h-10 items-center gap-2 border-b border-line bg-card px-3 font-semibold md:hidden"
    :class="verdictColour[judging.found!.verdict]"
    aria-hidden="true"
  >
    <VerdictMark :verdict="judging.found!.verdict" size="small" /><span class="truncate">{{
      judging.found!.headline
    }}</span
    ><SaveNote brief class="ml-auto" />
  </p>
</template>
