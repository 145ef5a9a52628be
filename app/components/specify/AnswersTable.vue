<script setup lang="ts">
import { isSure, type Answer } from '#core/solve/answer'
import { caseLimitC } from '#core/physics/alternator'

/** All answers in one table that compares them; a row is chosen by its name. */
const props = defineProps<{
  answers: readonly Answer[]
  current: string | null
  pinned: readonly string[]
  isChosen: (answer: Answer) => boolean
}>()
const emit = defineEmits<{ select: [id: string] }>()
const { q } = useWriting()
/** Whether it certainly suits, or the values that it depends on. */
function certainty(answer: Answer): string {
  if (isSure(answer)) return 'Sure'
  if (answer.verdict !== 'measure-first') return answer.headline
  return conditionsWords(answer.conditions, q)
}
/** Columns are shown only if they differ. */
const anyGivesUp = computed(() => props.answers.some(({ figures }) => figures.givesUpW > 0))
const daysWords = (days: number) => (days === Infinity ? 'no end' : q(days, 'days'))
</script>

<template>
  <div
    class="min-w-0 overflow-x-auto border border-line bg-card"
    tabindex="0"
    role="region"
    aria-label="All answers"
  >
    <table aria-label="Answers" class="w-full border-collapse text-left">
      <thead class="text-xs text-soft">
        <tr>
          <th scope="col" class="p-2 font-normal">Answer</th>
          <th scope="col" class="p-2 font-normal max-md:hidden">Certainty</th>
          <th scope="col" class="p-2 text-right font-normal">Cost</th>
          <th scope="col" class="p-2 text-right font-normal">Time to full</th>
          <th scope="col" class="p-2 text-right font-normal max-md:hidden">
            Alternator, at most {{ q(caseLimitC, '°C') }}
          </th>
          <th scope="col" class="p-2 text-right font-normal max-md:hidden">Days away</th>
          <th scope="col" class="p-2 text-right font-normal max-md:hidden">Changes</th>
          <th v-if="anyGivesUp" scope="col" class="p-2 text-right font-normal max-md:hidden">Gives up</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="answer in answers"
          :key="answer.id"
          class="border-t border-line align-top"
          :class="current === answer.id && 'bg-sunk shadow-[inset_4px_0_0_var(--sea)]'"
        >
          <th scope="row" class="p-0 font-normal md:min-w-56">
            <button
              type="button"
              class="flex min-h-11 w-full items-start gap-2 p-2 text-left hover:underline"
              :aria-pressed="current === answer.id"
              @click="emit('select', answer.id)"
            >
              <VerdictMark :verdict="answer.verdict" size="small" class="mt-0.5" /><span class="min-w-0"
                ><span class="font-semibold">{{ answer.name }}</span
                ><span class="block text-xs md:hidden">{{ certainty(answer) }}</span
                ><span v-if="isChosen(answer)" class="block text-xs font-semibold text-sea">specified</span
                ><span v-else-if="pinned.includes(answer.id)" class="block text-xs text-sea"
                  >pinned</span
                ></span
              >
            </button>
          </th>
          <td class="min-w-36 p-2 text-xs max-md:hidden">{{ certainty(answer) }}</td>
          <td class="p-2 text-right whitespace-nowrap">{{ q(answer.figures.cost, 'money') }}</td>
          <td class="p-2 text-right whitespace-nowrap">
            {{ answer.figures.hoursToFull === null ? 'not in 3 days' : q(answer.figures.hoursToFull, 'h') }}
          </td>
          <td class="p-2 text-right whitespace-nowrap max-md:hidden">
            {{
              answer.figures.alternatorPeakC === null
                ? 'not used'
                : q(Math.round(answer.figures.alternatorPeakC), '°C')
            }}
          </td>
          <td class="p-2 text-right whitespace-nowrap max-md:hidden">
            {{ daysWords(answer.figures.daysAway) }}
          </td>
          <td class="p-2 text-right max-md:hidden">{{ answer.figures.changes }}</td>
          <td v-if="anyGivesUp" class="p-2 text-right whitespace-nowrap max-md:hidden">
            {{ answer.figures.givesUpW > 0 ? `${q(answer.figures.givesUpW, 'W')} of inverter` : 'nothing' }}
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
