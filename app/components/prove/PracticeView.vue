<script setup lang="ts">
import type { ShownTest } from '#core/diagnosis/shown'
import { expectedWords, readingWords } from '#core/commissioning/readings'
import type { EngineClient } from '../../engine/client'
import type { PracticeEnd, ShownProof } from '../../engine/prover'

/** Practice: the network of the job with one hidden fault. Measure, name it, and compare with an efficient search. */
const props = defineProps<{ shown: ShownProof; prepared: boolean; engine: EngineClient }>()
const { q } = useWriting()
const seed = ref<number | null>(null)
const test = ref('')
const read = ref<readonly { readonly test: ShownTest; readonly value: number }[]>([])
const choices = shallowRef<readonly { readonly id: string; readonly words: string }[]>([])
const guess = ref('')
const end = shallowRef<PracticeEnd | null>(null)
const mostSeed = 1_000_000
async function begin() {
  const next = 1 + Math.floor(Math.random() * mostSeed)
  await props.engine.practise(next)
  choices.value = await props.engine.practiceChoices()
  seed.value = next
  read.value = []
  guess.value = ''
  end.value = null
}
async function measure() {
  const found = props.shown.tests.find(({ id }) => id === test.value)
  if (!found) return
  read.value = [...read.value, { test: found, value: await props.engine.practiceRead(found.id) }]
}
async function say() {
  end.value = await props.engine.practiceEnd(guess.value)
}
const isWithin = (of: ShownTest, value: number): boolean => Math.abs(value - of.expected) <= of.tolerance
const must = (of: ShownTest): string => expectedWords(of.expected, of.tolerance, of.quantity, of.unit, q)
</script>

<template>
  <div class="max-w-[52rem]">
    <p class="text-soft">
      This practice run hides one fault in a simulated copy of this job. It changes nothing in the job.
    </p>
    <button
      type="button"
      class="act mt-2 max-md:min-h-12"
      :disabled="!prepared"
      data-testid="practise"
      @click="begin"
    >
      {{ seed === null ? 'Hide a fault' : 'Hide another' }}
    </button>
    <p v-if="!prepared" class="text-soft" aria-busy="true">Calculating what each fault would show …</p>
    <template v-if="seed !== null">
      <form class="mt-3 flex flex-wrap items-end gap-2" @submit.prevent="measure">
        <label class="min-w-60 flex-1"
          >Measure<select v-model="test" class="entry w-full max-md:min-h-11" data-testid="practice-test">
            <option value="">Choose a test</option>
            <option v-for="one in shown.tests" :key="one.id" :value="one.id">
              {{ one.title }} · {{ one.state.name }}
            </option>
          </select></label
        >
        <button type="submit" class="act max-md:min-h-11" :disabled="!test">Read</button>
      </form>
      <ol v-if="read.length" class="mt-2" aria-label="Readings of this practice">
        <li
          v-for="(one, i) in read"
          :key="i"
          class="flex flex-wrap items-center gap-x-2 border-b border-line py-1"
        >
          <VerdictMark :verdict="isWithin(one.test, one.value) ? 'suits' : 'does-not-suit'" size="small" />
          <span class="flex-1">{{ one.test.title }}</span>
          <strong class="tabular-nums">{{
            readingWords(one.value, one.test.quantity, one.test.unit, q)
          }}</strong>
          <span class="text-soft">expected {{ must(one.test) }}</span>
        </li>
      </ol>
      <form class="mt-3 flex flex-wrap items-end gap-2" @submit.prevent="say">
        <label class="min-w-60 flex-1"
          >Which fault is it?<select
            v-model="guess"
            class="entry w-full max-md:min-h-11"
            data-testid="practice-guess"
          >
            <option value="">Choose a fault</option>
            <option v-for="one in choices" :key="one.id" :value="one.id">{{ one.words }}</option>
          </select></label
        >
        <button type="submit" class="act max-md:min-h-11" :disabled="!guess">Check answer</button>
      </form>
      <section
        v-if="end"
        class="mt-3 border-l-4 bg-card px-3 py-2"
        :class="end.right ? 'border-suits' : 'border-lamp'"
        data-testid="practice-end"
      >
        <p class="font-semibold">
          {{ end.right ? `Right, after ${read.length} readings` : 'It was another fault' }}: {{ end.was }}.
        </p>
        <p>{{ end.mend }}</p>
        <template v-if="end.economicalSaid">
          <p class="mt-2">
            An efficient search measures in order until a reading is off. It is sure after
            {{ end.economical.length === 1 ? 'that reading' : `${end.economical.length - 1} more readings` }}:
          </p>
          <ol class="list-decimal pl-5">
            <li v-for="title in end.economical" :key="title">{{ title }}</li>
          </ol>
          <p v-if="end.economicalSaid !== end.was">It would have said: {{ end.economicalSaid }}.</p>
        </template>
        <p v-else class="mt-2">
          An efficient search would not have been sure either: this fault is smaller than the tolerance of the
          readings.
        </p>
      </section>
    </template>
  </div>
</template>
