<script setup lang="ts">
import { adjustableField } from '#core/remedies/catalogue'
import { completeJob } from '#core/job/complete'
import type { Adjustment, Answer } from '#core/solve/answer'
import { applyChanges } from '#core/job/changes'
import { fieldAt } from '#core/job/document'
import { costOf } from '#core/job/specified'
import { changedFields } from '#core/job/shown'
import { caseLimitC } from '#core/physics/alternator'
import { capital, inSentence } from '#core/units/format'

/** One complete answer: cost, result, steps, settled checks and remaining ones. */
const { q } = useWriting()
const props = defineProps<{
  answer: Answer
  adjustments: readonly Adjustment[]
  isChosen: boolean
  isPinned: boolean
  isBusy: boolean
  nearest?: boolean
  /** Whether it can be offered next to the chosen answer. */
  canOffer?: boolean
  isOffered?: boolean
}>()
const emit = defineEmits<{ adjust: [change: Adjustment]; choose: []; pin: []; offer: [] }>()
const bench = useJob()
const original = computed(() => props.answer)
const figures = computed(() => props.answer.figures)
const wiringCost = computed(() => costOf(props.answer.wiring.parts))
const rows = computed(() => {
  const found = completeJob(bench.document!)
  return changedFields(found, applyChanges(found, props.answer.changes), props.answer.changes, q)
})
const off = (step: number) => props.adjustments.find((a) => a.step === step)?.off === true
const valueOf = (step: number, value: number | undefined) =>
  props.adjustments.find((a) => a.step === step)?.value ?? value ?? null
const fieldOf = (step: number) => {
  const path = adjustableField(original.value.steps[step]!.ref)
  return path ? (fieldAt(path)?.field ?? null) : null
}
</script>

<template>
  <article
    class="flex min-w-0 flex-col gap-3 border bg-card p-3"
    :class="isChosen ? 'border-sea' : 'border-line'"
    :data-answer="answer.id"
    :data-verdict="answer.verdict"
    :aria-busy="isBusy"
  >
    <header class="z-10 -mx-3 -mt-3 border-b border-line bg-card px-3 pt-3 pb-2 lg:sticky lg:top-0">
      <p class="text-xs text-soft">
        {{ nearest ? 'Nearest miss' : isChosen ? 'Specified for this job' : 'Answer' }}
      </p>
      <h2 class="text-lg leading-tight">{{ answer.name }}</h2>
      <p class="mt-1 flex items-center gap-2 font-semibold" :class="verdictColour[answer.verdict]">
        <VerdictMark :verdict="answer.verdict" />{{ answer.headline }}
      </p>
      <details v-if="answer.conditions.length > mostConditions" class="text-xs">
        <summary class="min-h-6 py-1 max-md:min-h-11">All {{ answer.conditions.length }} conditions</summary>
        <ul class="list-disc pl-4">
          <li v-for="condition in answer.conditions" :key="condition.path">
            {{ capital(conditionWords(condition, q)) }}.
          </li>
        </ul>
      </details>
      <p v-if="!nearest" class="mt-2 flex flex-wrap gap-2">
        <button type="button" class="act" :disabled="isBusy || isChosen" @click="emit('choose')">
          {{ isChosen ? 'Specified' : 'Choose this answer' }}</button><button
          type="button"
          class="act-quiet"
          :aria-pressed="isPinned"
          @click="emit('pin')"
        >
          {{ isPinned ? 'Unpin' : 'Pin' }}</button
        ><button
          v-if="isOffered || (canOffer && !isChosen)"
          type="button"
          class="act-quiet"
          :disabled="isBusy || isOffered"
          @click="emit('offer')"
        >
          {{ isOffered ? 'Offered as alternative' : 'Offer as alternative' }}
        </button>
      </p>
      <ul v-if="answer.inTheWay.length" class="mt-1">
        <li v-for="check in answer.inTheWay" :key="check.key" class="flex gap-1.5 py-0.5 text-xs">
          <VerdictMark :verdict="check.verdict" size="tiny" class="mt-0.5" />{{ check.summary }}
        </li>
      </ul>
    </header>

    <dl class="grid grid-cols-2 gap-x-3">
      <div class="border-t border-line py-1">
        <dt class="text-xs text-soft">
          Cost<template v-if="figures.unpriced">
            ({{ figures.unpriced }} {{ figures.unpriced === 1 ? 'price' : 'prices' }} missing)</template
          >
        </dt>
        <dd class="font-display text-lg leading-tight font-semibold">{{ q(figures.cost, 'money') }}</dd>
        <dd class="text-xs text-soft">
          {{ q(figures.partsCost, 'money') }} parts, {{ q(figures.hours, 'h') }}
        </dd>
      </div>
      <div class="border-t border-line py-1">
        <dt class="text-xs text-soft">Time to full</dt>
        <dd class="font-display text-lg leading-tight font-semibold">
          {{ figures.hoursToFull === null ? 'not in 3 days' : q(figures.hoursToFull, 'h') }}
        </dd>
        <dd v-if="figures.moreAhADay === null" class="text-xs text-soft">in normal use, loads on</dd>
        <dd v-else class="text-xs text-soft">
          it stands at {{ q(Math.round(figures.endsAt * 100), '%') }} then;
          {{ q(figures.moreAhADay, 'Ah') }} a day more would fill it
        </dd>
      </div>
      <div class="border-t border-line py-1">
        <dt class="text-xs text-soft">Alternator at its hottest</dt>
        <dd class="font-display text-lg leading-tight font-semibold">
          {{ figures.alternatorPeakC === null ? 'not used' : q(Math.round(figures.alternatorPeakC), '°C') }}
        </dd>
        <dd
          v-if="figures.alternatorPeakC !== null && figures.alternatorPeakC > caseLimitC"
          class="text-xs text-changed"
        >
          over {{ q(caseLimitC, '°C') }} by the usual figures: put a probe on it under load
        </dd>
      </div>
      <div class="border-t border-line py-1">
        <dt class="text-xs text-soft">Changes</dt>
        <dd class="font-display text-lg leading-tight font-semibold">{{ figures.changes }}</dd>
      </div>
    </dl>
    <p v-if="figures.unservedAh >= 1" class="border-l-4 border-changed pl-2">
      After three days of this use from a low battery, loads miss
      {{ q(figures.unservedAh, 'Ah') }}.
    </p>
    <p v-if="figures.unseen" class="border-l-4 border-changed pl-2">
      This depends on a place or tray that nobody has surveyed yet. Check it first.
    </p>

    <section>
      <h3 class="font-sans font-semibold">Work</h3>
      <ol>
        <li
          v-for="(step, i) in answer.steps"
          :key="i"
          class="border-t border-line py-1.5"
          :class="off(i) && 'opacity-60'"
        >
          <label class="flex min-h-8 items-start gap-2 max-md:min-h-11"
            ><input
              type="checkbox"
              class="mt-0.5 size-5 shrink-0"
              :checked="!off(i)"
              :disabled="isBusy || nearest"
              :aria-label="`Do it: ${step.label}`"
              @change="emit('adjust', { step: i, off: !off(i) })"
            /><span class="min-w-0"
              ><span class="font-semibold">{{ step.label }}</span
              ><span v-if="step.on" class="text-soft"> · {{ step.on }}</span>
              <span v-if="step.parts.length" class="block text-xs text-soft"
                >{{ step.parts.map((part) => partWords(part, q)).join('; ') }}; {{ q(step.hours, 'h') }}</span
              ><span v-else class="block text-xs text-soft"
                >no part; {{ step.hours < 0.5 ? q(step.hours * 60, 'min') : q(step.hours, 'h') }}</span
              >
              <span v-if="step.settles.length" class="block text-xs text-suits"
                >settles {{ step.settles.map((id) => answer.topics[id] ?? id).join(', ') }}</span
              ></span
            ></label
          >
          <label
            v-if="step.exchanges?.length && !nearest && !off(i)"
            class="mt-1 ml-7 flex max-w-72 flex-wrap items-center gap-x-2 text-xs"
            >Part
            <select
              class="entry small grow"
              :disabled="isBusy"
              :value="step.parts[0]?.code"
              @change="emit('adjust', { step: i, part: ($event.target as HTMLSelectElement).value })"
            >
              <option v-for="part in step.exchanges" :key="part.code" :value="part.code">
                {{ partWords(part, q) }}
              </option>
            </select></label
          >
          <ValueEntry
            v-if="fieldOf(i) && !nearest && !off(i)"
            class="mt-1 ml-7 max-w-40"
            :field="fieldOf(i)!"
            :label="fieldOf(i)!.label"
            :model-value="valueOf(i, step.ref.value)"
            @update:model-value="
              emit('adjust', { step: i, value: $event === null ? undefined : Number($event) })
            "
          />
        </li>
        <li v-if="answer.battery" class="border-t border-line py-1.5">
          <span class="font-semibold">{{
            answer.bank.map((part) => partWords(part, q)).join('; ')
          }}</span><span class="block text-xs text-soft"
            >in place of {{ bench.document!.candidate.name ?? 'the candidate' }}</span
          >
        </li>
        <li v-if="answer.steps.length === 0 && !answer.battery" class="border-t border-line py-1.5">
          No changes are needed.
        </li>
      </ol>
    </section>

    <section>
      <h3 class="font-sans font-semibold">Result</h3>
      <ul class="list-disc pl-4">
        <li v-for="words in answer.foreseen" :key="words" class="py-0.5">{{ words }}</li>
      </ul>
    </section>
    <section v-if="answer.accepted.length || answer.measure.length">
      <h3 class="font-sans font-semibold">Remaining</h3>
      <ul class="list-disc pl-4">
        <li v-for="words in answer.accepted" :key="words">{{ words }}</li>
        <li v-for="m in answer.measure" :key="m.path">
          Measure first: {{ capital(m.part) }}, {{ inSentence(m.label) }}. {{ m.how }}
        </li>
      </ul>
    </section>
    <details>
      <summary class="min-h-8 py-1 max-md:min-h-11">Settings</summary>
      <div v-for="card in answer.cards" :key="card.unit" class="mt-1 border-t border-line pt-1">
        <h4 class="font-semibold">{{ capital(card.unit) }}</h4>
        <dl>
          <div v-for="s in card.settings" :key="s.label" class="flex justify-between gap-3 text-xs">
            <dt class="text-soft">{{ s.label }}</dt>
            <dd class="font-semibold">{{ typeof s.value === 'number' ? q(s.value, s.unit) : s.value }}</dd>
          </div>
        </dl>
      </div>
    </details>
    <details>
      <summary class="min-h-8 py-1 max-md:min-h-11">As found and as specified</summary>
      <ChangedFields :rows="rows" />
    </details>
    <details v-if="answer.wiring.parts.length" data-testid="answer-wiring">
      <summary class="min-h-8 py-1 max-md:min-h-11">
        Wiring as drawn ({{ q(wiringCost, 'money') }}, {{ q(answer.wiring.hours, 'h') }})
      </summary>
      <ul class="list-disc pl-4 text-xs">
        <li v-for="part in answer.wiring.parts" :key="part.name + part.code" class="py-0.5">
          {{ part.unit === 'm' ? q(part.quantity, 'm') : `${part.quantity} ×` }} {{ part.name
          }}<template v-if="part.price === null">: not on the shelf</template>
        </li>
      </ul>
    </details>
    <details v-if="answer.cautions.length">
      <summary class="min-h-8 py-1 max-md:min-h-11">Cautions ({{ answer.cautions.length }})</summary>
      <ul class="list-disc pl-4 text-xs">
        <li v-for="words in answer.cautions" :key="words" class="py-0.5">{{ words }}</li>
      </ul>
    </details>
  </article>
</template>
