<script setup lang="ts">
import { bandWords } from '#core/system/unknowns'
import { canTry, remedyEffort, remedyLabel, sameRemedy, type RemedyRef } from '#core/remedies/catalogue'
import { verdictWords, type Verdict } from '#core/system/verdict'
import { fieldAt, partName } from '#core/job/document'
import { inSentence } from '#core/units/format'
import type { Compared } from '#core/assessment/check'

/** The reasons of the selected check, and possible fixes. */
const { q } = useWriting()
const bench = useJob()
const judging = useJudging()
const view = useView()
const emit = defineEmits<{ measure: [path: string] }>()
const check = computed(() => view.selectedCheck)
const sideWords = ({ value, unit }: Compared): string => (typeof value === 'number' ? q(value, unit) : value)
const bad = computed(
  () => check.value?.verdict === 'does-not-suit' || check.value?.verdict === 'suits-once-changed',
)
const isTried = (remedy: RemedyRef) => judging.trial !== null && sameRemedy(judging.trial, remedy)

/** The batteries set next to this one that would do where this one does not. */
const { result: candidates } = useAsked(
  (engine, job, shop) => engine.candidates(job, shop),
  () => (check.value?.remedies.some((r) => r.id === 'battery.other') ? bench.document : null),
)
const wouldDo = computed(
  () =>
    candidates.value
      ?.filter((c) => c.path !== 'candidate' && c.verdict !== 'does-not-suit')
      .map((c) => c.name) ?? [],
)

const stands = (verdict: Verdict) => verdict === 'does-not-suit' || verdict === 'suits-once-changed'
const checks = (count: number): string => (count === 1 ? '1 check' : `${count} checks`)
/** The effect of the tried remedy, check by check. */
const outcome = computed(() => {
  const trial = judging.trialJudged
  const after = trial?.assessment
  if (!after || !judging.assessment) return null
  const now = new Map(judging.assessment.checks.map((c) => [c.key, c]))
  const then = new Map(after.checks.map((c) => [c.key, c]))
  const changed = after.checks
    .filter((c) => now.has(c.key) && now.get(c.key)!.verdict !== c.verdict)
    .map((c) => ({
      key: c.key,
      name: `${c.subject}: ${c.topic}`,
      from: now.get(c.key)!.verdict,
      to: c.verdict,
    }))
  const fallsAway = judging.assessment.checks.filter((c) => !then.has(c.key) && c.verdict !== 'suits')
  const fresh = after.checks.filter((c) => !now.has(c.key) && c.verdict !== 'suits')
  const solved = fallsAway.length + changed.filter((c) => c.to === 'suits').length
  const remaining = after.checks.filter(({ verdict }) => stands(verdict)).length
  const { verdict, headline } = trial!.found
  return { verdict, headline, changed, fallsAway, fresh, solved, remaining }
})
const inputValue = (path: string, value: unknown) => shownValue(fieldAt(path)!.field, value, q)
</script>

<template>
  <section aria-labelledby="reasons" class="p-4">
    <h2 id="reasons" class="pb-2 text-sm font-semibold text-soft">
      Why<template v-if="check"> · {{ check.subject }}, {{ inSentence(check.title) }}</template>
    </h2>
    <template v-if="check">
      <VerdictWord :verdict="check.verdict" class="text-base" />

      <dl class="mt-3 grid grid-cols-2 gap-2">
        <div
          v-for="(side, i) in check.compared"
          :key="i"
          class="min-w-0 border-t-[3px] bg-paper p-2"
          :class="i === 0 && bad ? 'border-bad' : 'border-sea'"
        >
          <dt class="text-xs text-soft">{{ side.label }}</dt>
          <dd
            class="font-display leading-tight font-semibold break-words"
            :class="typeof side.value === 'number' ? 'text-xl' : 'text-base'"
          >
            {{ sideWords(side)
            }}<span
              v-if="check.verdict === 'measure-first'"
              class="block font-sans text-xs font-normal text-measure"
              >{{ i === 0 ? 'typical' : '' }}</span
            >
          </dd>
        </div>
      </dl>
      <p class="mt-2 border-l-4 border-line pl-2 text-[0.8125rem] break-words">
        <template v-if="check.verdict === 'measure-first'">With typical values: </template>{{ check.formula }}
      </p>
      <p class="mt-2">{{ check.summary }}</p>
      <p class="mt-2 text-soft">{{ check.why }}</p>
      <p v-for="caution in check.cautions" :key="caution" class="mt-2 border-l-4 border-changed pl-2">
        {{ caution }}
      </p>

      <div v-if="check.deciding.length" class="mt-3">
        <h3 class="font-sans font-semibold">Verdict by value</h3>
        <div
          v-for="unknown in check.deciding.slice(0, 4)"
          :key="unknown.path"
          class="mt-2 border-l-4 border-measure pl-2"
        >
          <button
            type="button"
            class="min-h-8 text-left font-semibold underline max-md:min-h-11"
            @click="emit('measure', unknown.path)"
          >
            {{ fieldAt(unknown.path)!.field.label }} ({{
              bench.document ? partName(bench.document, fieldAt(unknown.path)!.partPath) : ''
            }})
          </button>
          <ul>
            <li v-for="(band, i) in unknown.bands" :key="i" class="flex items-center gap-2 text-xs">
              <VerdictMark :verdict="band.verdict" size="tiny" /><span class="min-w-0"
                ><span class="font-semibold">{{ bandWords(band, fieldAt(unknown.path)!.field, q) }}</span
                >: {{ verdictWords[band.verdict] }}</span
              >
            </li>
          </ul>
        </div>
        <p v-if="check.deciding.length > 1" class="mt-1 text-xs text-soft">
          Each row uses typical values for the others.
        </p>
      </div>

      <div v-if="check.remedies.length" class="mt-3">
        <h3 class="font-sans font-semibold">Possible fixes</h3>
        <div
          v-for="(remedy, i) in check.remedies"
          :key="remedy.id"
          class="mt-2 border p-2"
          :class="isTried(remedy) ? 'border-sea' : 'border-line'"
        >
          <p class="font-semibold">{{ remedyLabel(remedy, q) }}</p>
          <p class="text-xs text-soft">{{ remedyEffort(remedy, q) }}</p>
          <p v-if="remedy.id === 'battery.other'" class="mt-1">
            <template v-if="wouldDo.length">{{ wouldDo.join(' or ') }} would do. </template
            ><NuxtLink
              :to="`/jobs/${bench.id}/candidates`"
              class="inline-flex min-h-8 items-center underline max-md:min-h-11"
              >Compare candidates</NuxtLink
            >
          </p>
          <button
            v-if="canTry(remedy)"
            type="button"
            class="mt-1.5"
            :class="isTried(remedy) ? 'act-quiet' : 'act'"
            :aria-pressed="isTried(remedy)"
            @click="judging.tryRemedy(remedy)"
          >
            {{ isTried(remedy) ? 'Back to as found' : 'Try it' }}
            <kbd v-if="i === 0" class="key max-md:hidden">t</kbd>
          </button>
          <div v-if="isTried(remedy) && outcome" class="mt-2 border-t border-line pt-2" role="status">
            <p class="text-xs text-soft">Trial only: the survey is unchanged. The job would be:</p>
            <p class="mt-1 flex items-center gap-2 font-semibold" :class="verdictColour[outcome.verdict]">
              <VerdictMark :verdict="outcome.verdict" />{{ outcome.headline }}
            </p>
            <p class="mt-1">
              {{ checks(outcome.solved) }} solved, {{ outcome.remaining || 'none' }}
              {{ outcome.remaining === 1 ? 'remains' : 'remain' }}.
            </p>
            <ul class="mt-1 text-xs">
              <li v-for="c in outcome.changed" :key="c.key" class="mt-1 flex items-center gap-1.5">
                <VerdictMark :verdict="c.from" size="tiny" /><span aria-hidden="true">→</span
                ><VerdictMark :verdict="c.to" size="tiny" /><span
                  >{{ c.name }}: <span class="sr-only">from {{ verdictWords[c.from] }} to</span>
                  {{ verdictWords[c.to].toLowerCase() }}</span
                >
              </li>
              <li v-for="c in outcome.fallsAway" :key="c.key" class="mt-1 flex items-center gap-1.5">
                <VerdictMark :verdict="c.verdict" size="tiny" /><span
                  >No longer applies: {{ c.subject }}, {{ c.topic }}</span
                >
              </li>
              <li v-for="c in outcome.fresh" :key="c.key" class="mt-1 flex items-center gap-1.5">
                <VerdictMark :verdict="c.verdict" size="tiny" /><span
                  >new: {{ c.subject }}, {{ c.topic }}: {{ verdictWords[c.verdict].toLowerCase() }}</span
                >
              </li>
              <li
                v-if="outcome.changed.length + outcome.fallsAway.length + outcome.fresh.length === 0"
                class="mt-1"
              >
                No verdict changes.
              </li>
            </ul>
          </div>
        </div>
      </div>

      <p class="mt-3 text-xs text-soft">Limit: {{ check.limit.text }}.</p>
      <details v-if="check.inputs.length" class="mt-1 text-xs">
        <summary class="min-h-8 py-1.5 text-soft max-md:min-h-11">
          Inputs used ({{ check.inputs.length }})
        </summary>
        <ul class="mt-1 space-y-1">
          <li
            v-for="input in check.inputs"
            :key="input.path"
            class="flex justify-between gap-3 border-b border-line pb-1"
          >
            <span>{{ input.part }}: {{ inSentence(input.label) }}</span
            ><span class="text-right"
              >{{ inputValue(input.path, input.value) || '–'
              }}<span class="block" :class="input.origin.kind === 'unknown' ? 'text-measure' : 'text-soft'">{{
                input.origin.text
              }}</span></span
            >
          </li>
        </ul>
      </details>
    </template>
    <p v-else class="text-soft">Nothing to check yet.</p>
  </section>
</template>
