<script setup lang="ts">
import { worstByPath, type WiredJob } from '#core/assessment/wired'
import type { Run } from '#core/wiring/network'
import { costOf } from '#core/job/specified'
import { labelsCsv } from '#core/formats/labels-csv'
import { wiringLabels } from '#core/papers/labels'
import { runsCsv, wiringPartsCsv } from '#core/formats/wiring-csv'
import { boughtFrom } from '#core/remedies/bought'
import { torqueNm } from '#core/wiring/lists'
import { lengthWords, lineWords, sizeWords, stateWords } from '#core/wiring/words'
import { inSentence } from '#core/units/format'
import type { Verdict } from '#core/system/verdict'
import { handOver } from '../../utils/files'

/** The wiring as lists: runs from source to load, parts to buy, terminals moved to a new unit. */
const props = defineProps<{ wired: WiredJob }>()
const chosen = defineModel<string | null>({ required: true })
const { q } = useWriting()
const bench = useJob()
const save = (list: string, text: string): void => handOver(`${bench.document!.job.number}-${list}.csv`, text)
const name = (id: string): string => props.wired.network.posts.find((post) => post.id === id)?.name ?? id
const fuseOf = (run: Run): string => {
  const id = props.wired.runs.find((one) => one.id === run.id)?.fuse
  const fitting = props.wired.network.posts.find((post) => post.id === id)?.fitting
  return fitting ? `${fitting.number} ${fitting.ratedA === null ? '' : q(fitting.ratedA, 'A')}` : 'none'
}
const amps = (run: Run): string => q(props.wired.runs.find((one) => one.id === run.id)!.amps, 'A')
/** The case in which most flows in a run, in words. */
const caseOf = (run: Run): string => inSentence(props.wired.runs.find((one) => one.id === run.id)!.at ?? '')
const verdicts = computed(() => worstByPath(props.wired))
const { shelf } = useWholeShelf()
/** Parts to buy, from the shelf if available. */
const bought = computed(() =>
  props.wired.parts.map((part) => ({ ...part, from: shelf.value && boughtFrom(shelf.value, part) })),
)
const kgInAll = computed(() => bought.value.reduce((sum, { kg }) => sum + (kg ?? 0), 0))
const priceInAll = computed(() => costOf(bought.value.flatMap(({ from }) => from ?? [])))
const torques = Object.entries(torqueNm)
  .map(([stud, nm]) => `${stud} ${nm}`)
  .join(', ')
const worst = (run: Run): Verdict | undefined => verdicts.value.get(`runs/${run.id}`)
</script>

<template>
  <div class="space-y-5">
    <section aria-labelledby="run-list">
      <div class="flex flex-wrap items-baseline gap-x-4">
        <h2 id="run-list" class="text-lg">Runs, from source to load</h2>
        <button
          type="button"
          class="text-sm font-semibold underline max-md:min-h-11"
          @click="save('runs', runsCsv(wired))"
        >
          Export runs (CSV)
        </button>
        <button
          type="button"
          class="text-sm font-semibold underline max-md:min-h-11"
          @click="save('labels', labelsCsv(wiringLabels(wired, q)))"
        >
          Export labels (CSV)
        </button>
      </div>
      <div class="overflow-x-auto">
        <table class="w-full text-sm max-md:hidden">
          <thead class="text-left text-soft">
            <tr>
              <th class="font-normal">Run</th>
              <th class="font-normal">From</th>
              <th class="font-normal">To</th>
              <th class="text-right font-normal">Size</th>
              <th class="pl-3 text-right font-normal">Length</th>
              <th class="pl-3 text-right font-normal">Current</th>
              <th class="pl-3 font-normal max-xl:hidden">Largest current in</th>
              <th class="pl-3 font-normal">Fuse</th>
              <th class="font-normal">State</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="run in wired.network.runs"
              :key="run.id"
              class="border-t border-line"
              :class="chosen === `runs/${run.id}` && 'bg-card'"
            >
              <td class="whitespace-nowrap">
                <button
                  type="button"
                  class="min-h-7 font-semibold underline"
                  @click="chosen = `runs/${run.id}`"
                >
                  {{ run.number }}
                </button>
                <VerdictMark v-if="worst(run)" :verdict="worst(run)!" size="tiny" class="ml-1 inline" />
              </td>
              <td>{{ name(run.from) }}</td>
              <td>{{ name(run.to) }}</td>
              <td class="text-right whitespace-nowrap tabular-nums">{{ sizeWords(run, q) }}</td>
              <td class="pl-3 text-right whitespace-nowrap tabular-nums">
                {{ lengthWords(run, q) }}
              </td>
              <td class="pl-3 text-right whitespace-nowrap tabular-nums" :title="caseOf(run)">
                {{ amps(run) }}
              </td>
              <td class="pl-3 text-soft max-xl:hidden">{{ caseOf(run) }}</td>
              <td class="pl-3 whitespace-nowrap">{{ fuseOf(run) }}</td>
              <td>{{ stateWords[run.state] }}</td>
            </tr>
          </tbody>
        </table>
        <ol class="md:hidden">
          <li v-for="run in wired.network.runs" :key="run.id" class="border-t border-line">
            <button
              type="button"
              class="block min-h-12 w-full py-1 text-left"
              :aria-pressed="chosen === `runs/${run.id}`"
              @click="chosen = `runs/${run.id}`"
            >
              <span class="flex items-center gap-1.5"
                ><strong>{{ run.number }}</strong> {{ sizeWords(run, q) }},
                {{ run.lengthKnown === 'open' ? 'length unknown' : lengthWords(run, q) }}, {{ amps(run)
                }}<VerdictMark v-if="worst(run)" :verdict="worst(run)!" size="small"
              /></span>
              <span class="block text-sm text-soft"
                >{{ name(run.from) }} → {{ name(run.to) }} · fuse {{ fuseOf(run) }} ·
                {{ stateWords[run.state] }}{{ caseOf(run) ? ` · largest in: ${caseOf(run)}` : '' }}</span
              >
            </button>
          </li>
        </ol>
      </div>
    </section>

    <section v-if="wired.network.lines.length" aria-labelledby="thin-lines">
      <h2 id="thin-lines" class="text-lg">Signal and sense lines</h2>
      <ul>
        <li v-for="line in wired.network.lines" :key="line.id">
          <strong>{{ line.number }}</strong> {{ lineWords(line) }}
        </li>
      </ul>
    </section>

    <section v-if="wired.swaps.length" aria-labelledby="swaps">
      <h2 id="swaps" class="text-lg">Moved from the old unit to the new one</h2>
      <ul>
        <li v-for="swap in wired.swaps" :key="swap.terminal">
          {{ swap.terminal }}: {{ swap.runs.length ? swap.runs.join(', ') : 'no run'
          }}<template v-if="swap.carriedOver.length">; carry over {{ swap.carriedOver.join(', ') }}</template>
        </li>
      </ul>
    </section>

    <section aria-labelledby="wiring-parts">
      <div class="flex flex-wrap items-baseline gap-x-4">
        <h2 id="wiring-parts" class="text-lg">To buy for the wiring</h2>
        <button
          type="button"
          class="text-sm font-semibold underline max-md:min-h-11"
          @click="save('wiring-parts', wiringPartsCsv(wired, shelf ?? []))"
        >
          Export parts (CSV)
        </button>
      </div>
      <p class="text-sm text-soft">
        Cable includes 10 % extra, at least 0.3 m a run. Studs and torques are typical: the maker’s figure
        counts.
      </p>
      <table class="text-sm max-md:w-full">
        <thead class="text-left text-soft">
          <tr>
            <th class="pr-4 text-right font-normal">Quantity</th>
            <th class="font-normal">What</th>
            <th class="pl-4 text-right font-normal">About</th>
            <th class="pl-4 font-normal max-md:hidden">On the shelf</th>
            <th class="pl-4 text-right font-normal">Price</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="{ what, quantity, unit, kg, from } in bought" :key="what" class="border-t border-line">
            <td class="pr-4 text-right whitespace-nowrap tabular-nums">
              {{ unit === 'm' ? q(quantity, 'm') : `${quantity} ×` }}
            </td>
            <td>{{ what }}</td>
            <td class="pl-4 text-right whitespace-nowrap tabular-nums">
              {{ kg === null || kg < 0.05 ? '' : q(kg, 'kg') }}
            </td>
            <td class="pl-4 max-md:hidden" :class="!from?.code && 'text-soft'">
              {{ from?.code ? from.name : shelf ? 'not on the shelf' : '' }}
            </td>
            <td class="pl-4 text-right whitespace-nowrap tabular-nums">
              {{ from?.price == null ? '' : q(from.price * quantity, 'money') }}
            </td>
          </tr>
          <tr v-if="shelf" class="border-t-2 border-line font-semibold">
            <td />
            <td>Total of priced parts</td>
            <td class="pl-4 text-right whitespace-nowrap tabular-nums">{{ q(kgInAll, 'kg') }}</td>
            <td class="max-md:hidden" />
            <td class="pl-4 text-right whitespace-nowrap tabular-nums">{{ q(priceInAll, 'money') }}</td>
          </tr>
        </tbody>
      </table>
      <p class="mt-1 text-sm text-soft">Torque, about: {{ torques }} Nm.</p>
    </section>
  </div>
</template>
