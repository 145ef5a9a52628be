<script setup lang="ts">
import { otherId, soundId } from '#core/diagnosis/cause-ids'
import { likelihoodWord, type ShownCause, type ShownDiagnosis } from '#core/diagnosis/shown'

/** The most likely causes of the readings, the evidence for each, and the next measurement. */
const props = defineProps<{
  diagnosis: ShownDiagnosis
  titleOf: (test: string) => string
  /** With the evidence for and against each. */
  whole?: boolean
  canMend?: boolean
}>()
defineEmits<{ measure: [test: string]; mended: [cause: ShownCause] }>()
const top = computed(() => props.diagnosis.causes[0] ?? null)
const isSound = computed(() => top.value?.id === soundId)
/** If nothing explains the readings, a message says so and the closest causes follow. */
const causes = computed(() =>
  props.diagnosis.causes.filter(({ id }) => props.diagnosis.explained || id !== otherId),
)
const percent = (share: number): string => `${share >= 0.995 ? '> 99' : Math.round(100 * share)} %`
const sizeWords = ({ size, unit }: ShownCause): string =>
  size === null ? '' : `, about ${Number(size.toPrecision(2))} ${unit === 'Δ°C' ? 'K' : unit}`
</script>

<template>
  <section
    class="border-l-4 bg-card px-3 py-2"
    :class="isSound ? 'border-suits' : 'border-lamp'"
    aria-label="What the readings mean"
    data-testid="causes"
  >
    <h3 class="font-semibold">
      {{
        !diagnosis.explained
          ? 'No known fault explains this'
          : isSound
            ? 'No fault found so far'
            : 'Most likely'
      }}
    </h3>
    <p v-if="!diagnosis.explained" class="text-bad">
      Check the meter and the probes, then read it again. Closest causes:
    </p>
    <ul>
      <li v-for="cause in causes" :key="cause.id" class="mt-1.5" :data-cause="cause.id">
        <p class="flex items-baseline justify-between gap-3">
          <span>{{ cause.words }}{{ sizeWords(cause) }}</span>
          <span class="shrink-0 font-semibold tabular-nums"
            ><template v-if="diagnosis.explained"
              ><span class="mr-1.5 text-xs font-normal text-soft">{{
                likelihoodWord(cause.probability)
              }}</span
              >{{ percent(cause.probability) }}</template
            ></span
          >
        </p>
        <div v-if="diagnosis.explained" class="h-1.5 bg-line" aria-hidden="true">
          <div
            class="h-full"
            :class="cause.id === soundId ? 'bg-suits' : 'bg-lamp'"
            :style="{ width: `${100 * cause.probability}%` }"
          />
        </div>
        <p v-if="cause.together.length" class="text-xs text-soft">
          No test can tell it from: {{ cause.together.join('; ') }}.
        </p>
        <template v-if="whole && cause.id !== soundId">
          <p v-if="cause.for.length" class="text-xs">
            Evidence for it: {{ cause.for.map(({ title }) => title).join('; ') }}.
          </p>
          <p v-if="cause.against.length" class="text-xs">
            Evidence against it: {{ cause.against.map(({ title }) => title).join('; ') }}.
          </p>
        </template>
      </li>
    </ul>
    <template v-if="top && !isSound && diagnosis.explained && top.probability >= 0.5">
      <p class="mt-2"><strong>Repair:</strong> {{ top.mend }}</p>
      <button
        v-if="canMend"
        type="button"
        class="act-quiet mt-1 w-full max-md:min-h-12"
        data-testid="mended"
        @click="$emit('mended', top)"
      >
        Mark as repaired and measure again
      </button>
    </template>
    <p v-if="diagnosis.next" class="mt-2">
      <strong>Next, {{ diagnosis.next.minutes }} min:</strong>
      <button
        type="button"
        class="ml-1 text-left underline underline-offset-2 max-md:min-h-11"
        data-testid="measure-next"
        @click="$emit('measure', diagnosis.next.test)"
      >
        {{ titleOf(diagnosis.next.test) }}</button>.
    </p>
  </section>
</template>
