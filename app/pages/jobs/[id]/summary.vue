<script setup lang="ts">
import { remedyEffort, remedyLabel } from '#core/remedies/catalogue'
import { worst } from '#core/system/verdict'
import { crafts, partName } from '#core/job/document'
import { ruleCatalogue, type RuleId } from '#core/rules/rules'
import { inSentence } from '#core/units/format'
import { today } from '../../../utils/dates'

/** The page the customer gets: the answer, the reasons, what to change, what is still open, and the cautions. */
const { q } = useWriting()
const judging = useJudging()
const { bench, problem, id } = useJobPage('Summary')

const job = computed(() => bench.document?.job)
const bank = computed(() => bench.document?.candidate)
const print = () => window.print()

const paths = computed(() => {
  const a = judging.assessment
  if (!a) return []
  const of = (lane: string | null) => a.checks.filter((c) => c.lane === lane)
  return [
    ...a.lanes.map((lane) => ({
      id: lane.id,
      name: lane.name,
      about: judging.drawings.find((d) => d.id === lane.id)?.about ?? '',
      verdict: lane.verdict,
      checks: of(lane.id),
    })),
    {
      id: 'battery',
      name: 'The battery itself',
      about: bank.value?.name ?? '',
      verdict: worst(of(null).map((c) => c.verdict)),
      checks: of(null),
    },
  ]
})
/** The suspect findings in full; what suits is said by its name. */
const notable = (checks: readonly { verdict: string }[]) =>
  checks.filter((c) => c.verdict !== 'suits') as (typeof paths.value)[number]['checks']
const fine = (checks: readonly { verdict: string; title: string }[]) =>
  checks
    .filter((c) => c.verdict === 'suits')
    .map((c) => inSentence(c.title))
    .join(', ')
const inTheWay = computed(() => judging.assessment?.checks.filter((c) => c.verdict === 'does-not-suit') ?? [])
const overridden = computed(() =>
  Object.entries(judging.assessment?.overrides ?? {})
    .filter(([rule]) => rule in ruleCatalogue)
    .map(([rule, value]) => {
      const known = ruleCatalogue[rule as RuleId]
      return `${known.label}: ${known.kind === 'number' ? q(Number(value), known.unit) : (known.options as Record<string, string>)[String(value)]}`
    }),
)
const assumed = computed(() => {
  const inputs = new Map(
    judging.assessment?.checks
      .flatMap((c) => c.inputs)
      .filter((i) => i.origin.kind === 'assumed' || i.origin.kind === 'customer')
      .map((i) => [i.path, i]) ?? [],
  )
  return [...inputs.values()].filter((i) => i.origin.text !== 'usual value, none entered')
})
</script>

<template>
  <main v-if="problem" class="p-10 text-center">
    <h1 class="text-2xl">This job cannot be opened</h1>
    <p class="mt-2">{{ problem }}</p>
  </main>
  <main
    v-else-if="job && judging.assessment && bank"
    class="mx-auto max-w-[52rem] p-4 md:px-8 md:py-6 print:max-w-none print:p-0"
  >
    <p class="mb-4 flex flex-wrap gap-2 print:hidden">
      <NuxtLink :to="`/jobs/${id}`" class="act-quiet">Back to the bench</NuxtLink
      ><button type="button" class="act" @click="print">Print</button>
    </p>
    <article class="sheet border border-line bg-card p-6 md:p-9 print:border-0 print:bg-white print:p-0">
      <header class="flex items-start justify-between gap-6 border-b-2 border-ink pb-3">
        <div>
          <p class="text-soft">Job {{ job.number }} · {{ today() }}</p>
          <h1 class="text-2xl">Lithium battery for {{ job.name || 'this vehicle' }}</h1>
          <p>
            {{
              [job.customer, job.craft && crafts[job.craft], job.registration, job.location]
                .filter(Boolean)
                .join(' · ')
            }}
          </p>
          <p v-if="job.wishes" class="text-soft">Wished: {{ job.wishes }}</p>
        </div>
        <AnchorMark class="size-12 shrink-0 text-sea" />
      </header>

      <section class="border-b border-line py-4">
        <p
          class="flex items-center gap-3 font-display text-xl font-semibold"
          :class="verdictColour[judging.assessment.verdict]"
        >
          <VerdictMark :verdict="judging.assessment.verdict" class="!size-8" />{{
            judging.assessment.headline
          }}
        </p>
        <p class="mt-1">{{ judging.assessment.reason }}</p>
        <p class="mt-1 text-soft">
          Battery in question: {{ bank.name || 'not chosen yet'
          }}<template v-if="bank.ahEach?.value"
            >, {{ q(bank.ahEach.value * (bank.parallel?.value ?? 1), 'Ah') }}</template
          >
        </p>
      </section>

      <section v-if="inTheWay.length" class="border-b border-line py-4">
        <h2 class="text-lg">What stands in the way</h2>
        <ul class="mt-1 list-disc pl-6">
          <li v-for="c in inTheWay" :key="c.key">
            <strong>{{ c.subject }}: {{ inSentence(c.title) }}.</strong>
            <template v-if="c.remedies[0]"
              >What could help: {{ inSentence(remedyLabel(c.remedies[0], q)) }}
              <span class="text-soft">({{ remedyEffort(c.remedies[0], q) }})</span>.</template
            >
          </li>
        </ul>
      </section>

      <section
        v-if="bench.document!.specified"
        class="border-b border-line py-4"
        data-testid="summary-specified"
      >
        <h2 class="text-lg">What is specified</h2>
        <p>{{ bench.document!.specified.name }}.</p>
        <ol class="mt-1 list-decimal pl-6">
          <li v-for="(step, i) in bench.document!.specified.steps" :key="i">
            <strong>{{ step.label }}</strong><template v-if="step.on"> ({{ step.on }})</template
            ><span v-if="step.parts.length" class="text-soft"
              >: {{ step.parts.map((part) => part.name).join(', ') }}</span
            >
          </li>
        </ol>
        <p v-if="bench.document!.specified.accepted.length" class="mt-1">
          Accepted as it is: {{ bench.document!.specified.accepted.join(' ') }}
        </p>
      </section>
      <section v-else-if="judging.assessment.changes.length" class="border-b border-line py-4">
        <h2 class="text-lg">{{ inTheWay.length ? 'What else would have to change' : 'What to change' }}</h2>
        <p v-if="inTheWay.length" class="text-soft">These alone do not make it suit.</p>
        <ol class="mt-1 list-decimal pl-6">
          <li v-for="change in judging.assessment.changes" :key="change.id + change.on">
            <strong>{{ partName(bench.document!, change.on) }}: {{ remedyLabel(change, q) }}.</strong>
            <span class="text-soft">{{ remedyEffort(change, q) }}</span>
          </li>
        </ol>
      </section>

      <section v-if="judging.assessment.measureNext.length" class="border-b border-line py-4">
        <h2 class="text-lg">Still to be measured</h2>
        <ul class="mt-1 list-disc pl-6">
          <li v-for="m in judging.assessment.measureNext" :key="m.path">
            <strong>{{ m.part }}: {{ inSentence(m.label) }}.</strong> {{ m.how }}
          </li>
        </ul>
      </section>

      <section v-for="path in paths" :key="path.id" class="border-b border-line py-4">
        <div class="flex break-after-avoid flex-wrap items-baseline gap-x-3">
          <h2 class="text-lg">{{ path.name }}</h2>
          <p class="mr-auto text-soft">{{ path.about }}</p>
          <VerdictWord :verdict="path.verdict" />
        </div>
        <ul class="mt-1 grid gap-2">
          <li
            v-for="c in notable(path.checks)"
            :key="c.key"
            class="grid break-inside-avoid grid-cols-[auto_1fr] gap-x-2"
          >
            <VerdictMark :verdict="c.verdict" class="mt-0.5 !size-4" />
            <div>
              <p>
                <strong>{{ c.title }}.</strong> {{ c.summary }} {{ c.why }}
              </p>
              <p v-if="c.verdict !== 'measure-first'" class="text-xs text-soft">
                {{ c.formula }} · limit: {{ c.limit.text }}
              </p>
              <p v-for="caution in c.cautions" :key="caution" class="text-xs">{{ caution }}</p>
            </div>
          </li>
        </ul>
        <p v-if="fine(path.checks)" class="mt-1 flex gap-2 text-soft">
          <VerdictMark verdict="suits" class="mt-0.5 !size-4" /><span
            >Inside the limits: {{ fine(path.checks) }}.</span
          >
        </p>
      </section>

      <section v-if="assumed.length || overridden.length" class="border-b border-line py-4">
        <h2 class="text-lg">What this rests on</h2>
        <p v-if="assumed.length">
          Not measured, but said or assumed:
          {{ assumed.map((i) => `${i.part} ${inSentence(i.label)} (${i.origin.text})`).join('; ') }}.
        </p>
        <p v-if="overridden.length">Rules set for this job alone: {{ overridden.join('; ') }}.</p>
      </section>

      <section class="break-inside-avoid pt-4">
        <h2 class="text-lg">Cautions</h2>
        <ul class="mt-1 list-disc pl-6">
          <li>
            A battery stores enough energy to weld and to burn. Disconnect as its maker says, remove
            jewellery, cover the posts, fuse close to the battery.
          </li>
          <li>
            Mains wiring, gas and work in engine spaces belong to people licensed for them. The local code and
            the makers’ instructions come before this page.
          </li>
          <li>
            This page compares figures of this job with the limits named beside them. It is advice of the
            installer, not a certificate of compliance with any standard.
          </li>
          <li>Where a reading is assumed or still open, the answer may change once it is taken.</li>
        </ul>
        <div class="mt-8 grid grid-cols-2 gap-10">
          <p class="border-t border-ink pt-1 text-xs text-soft">Installer, date</p>
          <p class="border-t border-ink pt-1 text-xs text-soft">Customer has read this, date</p>
        </div>
      </section>
    </article>
  </main>
  <main v-else class="p-10 text-soft" aria-busy="true">Opening the job …</main>
</template>

<style scoped>
/* Paper is white whatever the screen is. */
@media print {
  .sheet {
    --card: #fff;
    --paper: #fff;
    --ink: #111;
    --soft: #444;
    --line: #bbb;
    --sea: #24505e;
    --suits: #1a6656;
    --changed: #8a560a;
    --measure: #5a4a99;
    --bad: #a8321f;
    color: var(--ink);
  }
}
</style>
