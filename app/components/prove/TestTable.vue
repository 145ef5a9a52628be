<script setup lang="ts">
import { expectedWords, readingWords } from '#core/commissioning/readings'
import type { ShownTest } from '#core/diagnosis/shown'
import { testGroupNames, testGroups } from '#core/commissioning/tests/test'
import type { TakenReading } from '#core/job/proving'

/** The essential tests with expected values and readings; the others are hidden below. */
const props = defineProps<{
  tests: readonly ShownTest[]
  more: readonly ShownTest[]
  readingOf: (test: ShownTest) => TakenReading | null
  verdictOf: (test: ShownTest) => 'within' | 'outside' | 'open'
}>()
const chosen = defineModel<string>({ required: true })
const { q } = useWriting()
interface Part {
  readonly title: string
  readonly tests: readonly ShownTest[]
}
const isOpen = ref(false)
/** The other tests by subject. */
const others = computed<readonly Part[]>(() =>
  testGroups
    .map((group) => ({
      title: testGroupNames[group],
      tests: props.more.filter((test) => test.group === group),
    }))
    .filter(({ tests }) => tests.length > 0),
)
/** Of the others those stay in sight that were read, or are chosen. */
const parts = computed<readonly Part[]>(() => [
  { title: 'Essential tests', tests: props.tests },
  ...(isOpen.value
    ? others.value
    : [
        {
          title: 'Asked for',
          tests: props.more.filter((test) => test.id === chosen.value || props.verdictOf(test) !== 'open'),
        },
      ].filter(({ tests }) => tests.length > 0)),
])
const must = (test: ShownTest): string =>
  expectedWords(test.expected, test.tolerance, test.quantity, test.unit, q)
const read = (test: ShownTest): string => {
  const reading = props.readingOf(test)
  return reading ? readingWords(reading.value, test.quantity, test.unit, q) : ''
}
</script>

<template>
  <div
    class="max-h-[calc(100dvh-15rem)] overflow-auto border border-line bg-card"
    tabindex="0"
    role="region"
    aria-label="All tests"
  >
    <table class="w-full border-collapse text-left text-sm">
      <thead class="sticky top-0 bg-card">
        <tr class="border-b border-line">
          <th class="px-2 py-1">Test</th>
          <th class="px-2 py-1">State</th>
          <th class="px-2 py-1 text-right">Expected</th>
          <th class="px-2 py-1 text-right">Reading</th>
          <th class="px-2 py-1"><span class="sr-only">Verdict</span></th>
        </tr>
      </thead>
      <tbody v-for="{ title, tests: own } in parts" :key="title">
        <tr>
          <th colspan="5" class="px-2 pt-2 pb-0.5 text-left font-display text-base">
            {{ title }}
          </th>
        </tr>
        <tr
          v-for="test in own"
          :key="test.id"
          class="border-b border-line"
          :class="chosen === test.id ? 'bg-paper' : ''"
          :data-row="test.id"
        >
          <td class="px-2 py-0.5">
            <button
              type="button"
              class="min-h-7 text-left hover:underline"
              :aria-pressed="chosen === test.id"
              @click="chosen = test.id"
            >
              {{ test.title }}
            </button>
          </td>
          <td class="px-2 py-0.5 text-soft">{{ test.state.name }}</td>
          <td class="px-2 py-0.5 text-right whitespace-nowrap tabular-nums">{{ must(test) }}</td>
          <td class="px-2 py-0.5 text-right font-semibold whitespace-nowrap tabular-nums">
            {{ read(test) }}
          </td>
          <td class="px-2 py-0.5">
            <VerdictMark
              v-if="verdictOf(test) !== 'open'"
              :verdict="verdictOf(test) === 'within' ? 'suits' : 'does-not-suit'"
              size="small"
            /><span class="sr-only">{{
              { within: 'within', outside: 'outside', open: 'not read' }[verdictOf(test)]
            }}</span>
          </td>
        </tr>
      </tbody>
    </table>
    <button
      v-if="more.length"
      type="button"
      class="min-h-9 px-2 underline"
      :aria-expanded="isOpen"
      data-testid="more-tests"
      @click="isOpen = !isOpen"
    >
      {{ isOpen ? 'Hide the other tests' : `Show ${more.length} more tests` }}
    </button>
  </div>
</template>
