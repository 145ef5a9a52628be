<script setup lang="ts">
import { candidatePaths, chooseCandidate, mostCandidates } from '#core/job/candidates'
import type { CandidateColumn, SourceHours } from '#core/compare/candidates'
import { verdictWords } from '#core/system/verdict'
import { partAt, valueOf, withNewPart } from '#core/job/document'
import { partKinds } from '#core/job/fields'
import { candidateFromShelf, type ShelfPart } from '#core/shelf/kinds'
import { durationWords, inSentence } from '#core/units/format'

/** Batteries and bank arrangements side by side on this job. */
const { q, n } = useWriting()
const { bench, problem, ready } = useJobPage('Candidates')
const { result: compared, pending } = useAsked(
  (engine, job, shop) => engine.candidates(job, shop),
  () => (ready.value ? bench.document : null),
)
const columns = computed(() => compared.value ?? [])
const room = computed(() => ready.value && candidatePaths(bench.document!).length < mostCandidates)
const picking = ref(false)
const { fields } = partKinds.candidate

const or = (value: number | null, words: (value: number) => string): string =>
  value === null ? 'unknown' : words(value)
const hours = (value: SourceHours['hours']): string =>
  value === null
    ? 'unknown'
    : value === 'sets'
      ? 'not before sunset'
      : value === Infinity
        ? 'never full'
        : q(value, 'h')
const rows: readonly (readonly [
  label: string,
  about: (c: CandidateColumn) => string,
  value: (c: CandidateColumn) => string,
])[] = [
  [
    'Usable',
    (c) => `the old bank now ${or(c.usableOldAh, (v) => q(v, 'Ah'))}`,
    (c) => or(c.usableAh, (v) => q(v, 'Ah')),
  ],
  [
    'Lasts away from mains',
    () => 'at the net daily use, in the cold',
    (c) => or(c.days, (v) => (v === Infinity ? 'as long as sources run' : q(v, 'days'))),
  ],
  [
    'At full inverter load',
    () => 'together with the DC loads',
    (c) =>
      Object.keys(bench.document!.inverters).length === 0
        ? 'no inverter'
        : or(c.minutesFullLoad, (v) => durationWords(v / 60)),
  ],
  [
    'Weight',
    (c) => `the old bank ${or(c.oldWeightKg, (v) => q(v, 'kg'))}`,
    (c) => or(c.weightKg, (v) => q(v, 'kg')),
  ],
  ['Price', () => 'of all batteries', (c) => (c.price === null ? 'none entered' : q(c.price, 'money'))],
  [
    'Price per kWh over its life',
    () => 'at the shop’s depth',
    (c) => (c.pricePerKwh === null ? 'none entered' : q(c.pricePerKwh, 'money')),
  ],
]
const countOf = (path: string, name: 'series' | 'parallel') => {
  const part = partAt(bench.document!, path)?.part
  return (part && valueOf<number>(part, name)) ?? 1
}
const setCount = (path: string, name: 'series' | 'parallel', value: number | string | null) =>
  bench.setField(`${path}/${name}`, { value: value ?? 1, how: 'assumed' })

function add(part: Record<string, unknown>) {
  bench.edit((job) => withNewPart(job, 'alternatives', part).job)
}
function take(part: ShelfPart) {
  picking.value = false
  add(candidateFromShelf(part))
}
function another(path: string) {
  const part = partAt(bench.document!, path)?.part
  if (part) add({ ...part, parallel: { value: countOf(path, 'parallel') + 1, how: 'assumed' } })
}
const choose = (path: string) => bench.edit((job) => chooseCandidate(job, path))
</script>

<template>
  <JobShell
    topic="verdicts"
    title="Candidates"
    about="Up to four batteries or arrangements, each checked on the whole job."
    :problem="problem"
    :ready="ready"
  >
    <div class="p-3 md:p-4">
      <div class="mb-3 flex flex-wrap items-center gap-3">
        <button type="button" class="act" :disabled="!room" @click="picking = true">Add from shelf</button
        ><button type="button" class="act-quiet" :disabled="!room" @click="add({})">Add by hand</button>
        <p v-if="!room" class="text-soft">There are four. Remove one to add another.</p>
      </div>
      <p v-if="pending && columns.length === 0" role="status" class="text-soft">Calculating…</p>
      <!-- Every line of a card stands beside the same line of the others. -->
      <ul
        class="grid gap-x-3 gap-y-3 sm:grid-cols-2 xl:grid-cols-4"
        aria-label="Candidates"
        :aria-busy="pending"
      >
        <li
          v-for="c in columns"
          :key="c.path"
          :data-candidate="c.path"
          :data-verdict="c.verdict"
          class="row-span-15 grid grid-rows-subgrid gap-y-0 border bg-card p-3"
          :class="c.path === 'candidate' ? 'border-ink' : 'border-line'"
        >
          <p class="text-xs text-soft">{{ c.path === 'candidate' ? 'In question' : 'Beside it' }}</p>
          <h2 class="text-lg">{{ c.name }}</h2>
          <p class="text-soft">{{ c.arrangement }}</p>
          <p class="mt-1 flex items-center gap-2 font-semibold" :class="verdictColour[c.verdict]">
            <VerdictMark :verdict="c.verdict" />{{ c.headline }}
          </p>
          <p class="mt-1 line-clamp-3 min-h-12 text-xs text-soft">
            {{ c.against[0]?.words ?? 'Inside every limit of this job.' }}
          </p>
          <div class="mt-2 h-32">
            <FitDrawing v-if="c.space" :space="c.space" :placed="c.placed" :fits="c.fits!" :name="c.name" />
            <p
              v-else
              class="grid h-full place-items-center border border-dashed border-edge p-3 text-center text-xs text-measure"
            >
              Measure the space and enter the size to see whether it fits.
            </p>
          </div>
          <dl class="row-span-7 mt-2 grid grid-rows-subgrid gap-y-0">
            <div
              v-for="[label, about, words] in rows"
              :key="label"
              class="flex items-baseline justify-between gap-3 border-t border-line py-1"
            >
              <dt>
                {{ label }}<span class="block text-xs text-soft">{{ about(c) }}</span>
              </dt>
              <dd class="text-right font-semibold">{{ words(c) }}</dd>
            </div>
            <div class="border-t border-line py-1">
              <dt>Time to full<span class="block text-xs text-soft">each source alone, loads on</span></dt>
              <dd>
                <ul>
                  <li
                    v-for="source in c.hoursToFull"
                    :key="source.name"
                    class="flex justify-between gap-3 text-xs"
                  >
                    <span class="text-soft">{{ source.name }}</span><span class="font-semibold">{{
                      hours(source.hours)
                    }}</span>
                  </li>
                </ul>
              </dd>
            </div>
          </dl>
          <div class="border-t border-line pt-2">
            <ul v-if="c.against.length > 1">
              <li v-for="check in c.against.slice(1, 5)" :key="check.key" class="flex gap-1.5 py-0.5 text-xs">
                <VerdictMark :verdict="check.verdict" size="tiny" class="mt-0.5" /><span
                  ><span class="sr-only">{{ verdictWords[check.verdict] }}: </span>{{ check.words }}</span
                >
              </li>
              <li v-if="c.against.length > 5" class="text-xs text-soft">
                and {{ n(c.against.length - 5, '') }} more
              </li>
            </ul>
          </div>
          <div class="mt-2">
            <div class="grid grid-cols-2 gap-2">
              <ValueEntry
                :field="fields.parallel"
                label="In parallel"
                :model-value="countOf(c.path, 'parallel')"
                @update:model-value="setCount(c.path, 'parallel', $event)"
              /><ValueEntry
                :field="fields.series"
                label="In series"
                :model-value="countOf(c.path, 'series')"
                @update:model-value="setCount(c.path, 'series', $event)"
              />
            </div>
            <p class="mt-2 flex flex-wrap gap-2">
              <button v-if="c.path !== 'candidate'" type="button" class="act" @click="choose(c.path)">
                Choose this battery</button
              ><button
                type="button"
                class="act-quiet"
                :disabled="!room"
                :aria-label="`${c.name}: one more in parallel, as a copy`"
                @click="another(c.path)"
              >
                One more in parallel</button
              ><button
                v-if="c.path !== 'candidate'"
                type="button"
                class="min-h-9 underline hover:text-bad max-md:min-h-11"
                :aria-label="`Remove ${inSentence(c.name)}`"
                @click="bench.removePart(c.path)"
              >
                Remove
              </button>
            </p>
          </div>
        </li>
      </ul>
    </div>
    <ShelfPicker v-if="picking" :kinds="['batteries']" @pick="take" @close="picking = false" />
  </JobShell>
</template>
