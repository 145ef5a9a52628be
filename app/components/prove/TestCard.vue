<script setup lang="ts">
import { readingWords } from '#core/commissioning/readings'
import type { InstrumentQuantity } from '#core/formats/instrument-lines'
import type { ShownTest } from '#core/diagnosis/shown'
import type { TakenReading } from '#core/job/proving'
import type { EngineClient } from '../../engine/client'

/** One test: probe posts, one large reading, its band and its result. */
const props = defineProps<{
  test: ShownTest
  reading: TakenReading | null
  verdict: 'within' | 'outside' | 'open'
  engine: EngineClient
  titleOf: (test: string) => string
  /** Whether readings come from the practice simulation instead of instruments. */
  practising?: boolean
}>()
const emit = defineEmits<{
  take: [value: number, from: TakenReading['from']]
  again: []
  /** One thing of a list differs: its own test is wanted. */
  single: [test: string]
}>()
const bench = useJob()
const { q, parse, unitName } = useWriting()
const text = ref('')
const problem = ref('')
const { readings, state, last, start, connect, stop, clear } = useLiveReading(bench.id, () => props.test.id)
watch(
  () => props.test.id,
  () => {
    text.value = ''
    problem.value = ''
  },
)
const isWalk = computed(() => props.test.list.length > 0)
const isCase = computed(() => props.test.quantity === 'celsius')
const live = computed(() => state.value === 'connected' || state.value === 'lost')
const shownNow = computed(() => (live.value || isCase.value ? (last.value?.value ?? null) : null))
const value = computed(() => shownNow.value ?? props.reading?.value ?? null)
const large = computed(() =>
  value.value === null ? '—' : readingWords(value.value, props.test.quantity, props.test.unit, q),
)
const verdictWords = computed(() => {
  if (!props.reading || live.value) return null
  if (props.verdict === 'within') return { verdict: 'suits' as const, words: 'As expected' }
  const lower = props.reading.value < props.test.expected
  return {
    verdict: 'does-not-suit' as const,
    words:
      props.test.quantity === 'answer'
        ? 'Not as expected'
        : lower
          ? 'Lower than expected'
          : 'Higher than expected',
  }
})
const when = computed(() => {
  if (!props.reading) return ''
  const from = { typed: 'typed', live: props.test.instrument.toLowerCase(), file: 'from a file' }[
    props.reading.from
  ]
  const time = new Date(props.reading.when).toLocaleTimeString('en-GB', {
    hour: '2-digit',
    minute: '2-digit',
  })
  return `${from}, ${time}, ${props.reading.by}`
})

function keepTyped() {
  const read = parse(text.value, props.test.unit)
  problem.value = read.ok ? '' : read.error
  if (!read.ok) return
  emit('take', read.value, 'typed')
  text.value = ''
}
/** An instrument held at the test: its mean is recorded. A case temperature is recorded for half an hour. */
function hold() {
  clear()
  start(isCase.value ? caseSpeed : 6)
}
/** The logger's channel for this test; null if it cannot read it. A case is watched for half an hour, by a person. */
const logged = computed<InstrumentQuantity | null>(() =>
  props.test.quantity === 'volts' ? 'voltage' : props.test.quantity === 'amps' ? 'current' : null,
)
/** Duration of a simulated half hour, s. */
const caseSpeed = 120
watch(state, (now) => {
  if (now !== 'ended' || readings.value.length === 0) return
  const tail = isCase.value ? readings.value.slice(-3) : readings.value
  emit('take', tail.reduce((sum, one) => sum + one.value, 0) / tail.length, 'live')
})
</script>

<template>
  <section :aria-label="test.title" data-testid="test">
    <h2 class="text-xl" data-testid="test-title">{{ test.title }}</h2>
    <p class="text-soft">{{ test.state.name }}.</p>
    <p class="mt-1.5 flex flex-wrap items-center gap-x-2 gap-y-1">
      <template v-if="test.from">
        <span
          class="inline-flex size-6 items-center justify-center rounded-full bg-bad font-bold text-card"
          aria-hidden="true"
          >+</span
        ><span
          class="inline-flex size-6 items-center justify-center rounded-full border-2 border-ink font-bold"
          aria-hidden="true"
          >−</span
        >
      </template>
      <span
        >{{ test.how
        }}<NuxtLink
          v-if="test.keptAs?.quantity === 'capacity' && bench.craft"
          :to="{
            path: `/craft/${bench.craft}/test`,
            query: { job: bench.id, test: test.id, battery: test.keptAs.part },
          }"
          class="ml-1 underline"
          >Guided discharge</NuxtLink
        ></span
      >
    </p>
    <WalkList v-if="isWalk" :list="test.list" :title-of="titleOf" @single="$emit('single', $event)" />
    <p
      v-else-if="test.quantity !== 'answer' || reading || live"
      class="mt-2 font-display text-6xl leading-none font-bold tabular-nums max-md:text-[3.4rem]"
      data-testid="reading"
      :aria-live="live ? 'off' : 'polite'"
    >
      {{ large }}
    </p>
    <p class="min-h-5 text-soft">
      <template v-if="state === 'lost'"
        >Connection lost. Readings so far are saved; recording continues by itself.</template
      ><template v-else-if="live">{{ test.instrument }}, live</template
      ><template v-else-if="reading"
        >{{ when }} ·
        <button type="button" class="underline max-md:min-h-11" @click="$emit('again')">
          Delete reading
        </button>
      </template>
    </p>
    <CaseCurve v-if="isCase" :test="test" :readings="readings" :engine="engine" @limit="stop" />
    <ReadingBand v-else-if="!isWalk" :test="test" :value="value" class="mt-1" />
    <p
      v-if="verdictWords"
      class="flex items-center gap-2 text-lg font-semibold"
      :class="verdictColour[verdictWords.verdict]"
      data-testid="test-verdict"
    >
      <VerdictMark :verdict="verdictWords.verdict" />{{ verdictWords.words }}
    </p>
    <p v-if="problem" role="alert" class="text-bad">{{ problem }}</p>
    <slot v-if="practising" name="practice" />
    <div v-else-if="test.quantity === 'answer'" class="mt-2 flex gap-2">
      <button type="button" class="act flex-1 max-md:min-h-14" @click="$emit('take', 1, 'typed')">
        {{ isWalk ? 'Everything matches' : 'Yes' }}
      </button>
      <button type="button" class="act-quiet flex-1 max-md:min-h-14" @click="$emit('take', 0, 'typed')">
        {{ isWalk ? 'Something differs' : 'No' }}
      </button>
      <button v-if="!live" type="button" class="act-quiet max-md:min-h-14" @click="hold">Simulate</button>
    </div>
    <form v-else class="mt-2 flex gap-2" @submit.prevent="keepTyped">
      <label class="min-w-0 flex-1"
        ><span class="sr-only">Reading in {{ unitName(test.unit) }}</span
        ><input
          v-model="text"
          class="entry w-full max-md:min-h-14 max-md:text-xl"
          inputmode="decimal"
          autocomplete="off"
          :placeholder="`Reading, ${unitName(test.unit)}`"
          data-testid="type-reading"
      /></label>
      <button type="submit" class="act max-md:min-h-14" :disabled="text.trim() === ''">Keep</button>
      <button v-if="!live" type="button" class="act-quiet max-md:min-h-14" data-testid="hold" @click="hold">
        {{ isCase && readings.length ? 'From the start' : 'Read live' }}
      </button>
      <button v-else type="button" class="act-quiet max-md:min-h-14" @click="stop">Stop</button>
    </form>
    <ConnectLogger
      v-if="!practising && !live && logged"
      class="mt-2"
      @connect="(port, baudRate) => logged && connect(port, baudRate, logged)"
    />
  </section>
</template>
