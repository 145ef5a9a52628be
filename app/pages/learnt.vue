<script setup lang="ts">
import type { Lesson, LearntRow } from '#core/logbook/learnt'
import { ruleCatalogue } from '#core/rules/rules'
import type { Unit } from '#core/units/units'
import { read } from '../utils/api'

useHead({ title: 'Learnt · Jovial Anchor' })
useKeys(shopKeys)
const account = useAccount()
const { q } = useWriting()
const lessons = shallowRef<readonly Lesson[] | null>(null)
const problem = ref('')
onMounted(async () => {
  const answer = await read<readonly Lesson[]>('/api/learnt')
  problem.value = problemOf(answer, 'The server cannot be reached.')
  if (answer.kind === 'ok') lessons.value = answer.data
})
const signed = (value: number, unit: Unit): string =>
  `${value > 0 ? '+' : value < 0 ? '−' : ''}${q(Math.abs(value), unit)}`
const rowsOf = ({ all, rows }: Lesson): readonly LearntRow[] => (rows.length > 1 ? [...rows, all] : rows)
const unitOf = ({ rule }: { rule: keyof typeof ruleCatalogue }): Unit => {
  const found = ruleCatalogue[rule]
  return found.kind === 'number' ? found.unit : ''
}
</script>

<template>
  <main class="mx-auto max-w-6xl p-4 md:px-8 md:py-7">
    <header class="mb-3">
      <h1 class="text-3xl">Learnt</h1>
      <p class="text-soft">What your own readings say about the predictions. No rule changes by itself.</p>
    </header>
    <CraftTabs />
    <p v-if="problem" role="alert" class="mb-3 border-l-4 border-bad bg-card px-3 py-2">{{ problem }}</p>
    <section v-for="lesson in lessons ?? []" :key="lesson.topic" class="mb-6">
      <h2 class="text-xl">{{ lesson.title }}</h2>
      <div
        class="overflow-x-auto border-y border-line bg-card"
        role="region"
        :aria-label="lesson.title"
        tabindex="0"
      >
        <table class="w-full">
          <thead>
            <tr class="border-b border-line text-left text-xs text-soft">
              <th class="px-3 py-2 font-normal">{{ lesson.topic === 'capacity' ? 'Age' : 'Kind' }}</th>
              <th class="px-3 py-2 text-right font-normal">Readings</th>
              <th class="px-3 py-2 text-right font-normal">Craft</th>
              <th class="px-3 py-2 text-right font-normal">Measured less predicted</th>
              <th class="px-3 py-2 text-right font-normal">Half lie within</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in rowsOf(lesson)" :key="row.group" class="border-line not-first:border-t">
              <td class="px-3 py-1.5">{{ row.group }}</td>
              <td class="px-3 py-1.5 text-right">{{ row.readings }}</td>
              <td class="px-3 py-1.5 text-right">{{ row.crafts }}</td>
              <td class="px-3 py-1.5 text-right font-semibold">{{ signed(row.bias, lesson.unit) }}</td>
              <td class="px-3 py-1.5 text-right">± {{ q(row.spread, lesson.unit) }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-if="lesson.offer" class="mt-2 border-l-4 border-changed bg-card px-3 py-2">
        <strong>{{ ruleCatalogue[lesson.offer.rule].label }}</strong>:
        {{ q(lesson.offer.now, unitOf(lesson.offer)) }} now,
        {{ q(lesson.offer.fits, unitOf(lesson.offer)) }} would fit.
        {{ lesson.offer.why }}
        <NuxtLink
          v-if="account.mayDecide"
          :to="{ path: '/rules', query: { set: lesson.offer.rule, to: lesson.offer.fits } }"
          class="underline"
          >Try it and see which open jobs change</NuxtLink
        >
      </p>
      <p v-else class="mt-1 text-soft">{{ lesson.noOffer }}</p>
    </section>
    <p v-if="lessons?.length === 0" class="border-y border-line bg-card px-4 py-10 text-center text-soft">
      No predicted readings yet. Signed records and capacity tests add them.
    </p>
  </main>
</template>
