<script setup lang="ts">
import { stages, type Stage } from '#core/job/document'
import { read } from '../utils/api'
import { shownDay, todayHere, type TodayAnswer } from '../utils/craft'

useHead({ title: 'Today · Jovial Anchor' })
useKeys(shopKeys)
const answer = shallowRef<TodayAnswer | null>(null)
const problem = ref('')
async function load() {
  const got = await read<TodayAnswer>('/api/today')
  problem.value = problemOf(got, 'The server cannot be reached. The jobs on this device are under Jobs.')
  if (got.kind === 'ok') answer.value = got.data
}
onMounted(load)
const together = useTogether()
watch(() => together.changes, load)
const today = todayHere()
const open = computed(() =>
  (Object.keys(stages) as Stage[]).map((stage) => ({ stage, count: answer.value?.stages[stage] ?? 0 })),
)
</script>

<template>
  <main class="mx-auto max-w-7xl p-4 md:px-8 md:py-7">
    <h1 class="text-3xl">Today</h1>
    <p class="mb-4 text-soft">{{ shownDay(today) }}</p>
    <p v-if="problem" role="alert" class="mb-3 border-l-4 border-bad bg-card px-3 py-2">{{ problem }}</p>
    <template v-if="answer">
      <section aria-labelledby="stages" class="mb-8">
        <h2 id="stages" class="sr-only">Jobs by stage</h2>
        <ol
          class="grid grid-cols-4 gap-px border border-line bg-line xl:grid-cols-8"
          aria-label="Jobs by stage"
        >
          <li v-for="{ stage, count } in open" :key="stage" class="bg-card">
            <NuxtLink :to="{ path: '/', query: { stage } }" class="block px-3 py-2 hover:bg-paper/60">
              <span class="block text-2xl" :class="count === 0 && 'text-soft'">{{ count }}</span><span
                class="text-soft"
                >{{ stages[stage] }}</span
              >
            </NuxtLink>
          </li>
        </ol>
      </section>
      <div class="grid grid-cols-1 gap-8 lg:grid-cols-2">
        <section aria-labelledby="due">
          <h2 id="due" class="mb-2 text-xl">Jobs due</h2>
          <ul v-if="answer.due.length" class="border-y border-line bg-card" aria-label="Jobs due">
            <li v-for="job in answer.due" :key="job.id" class="border-line px-3 py-2 not-first:border-t">
              <NuxtLink :to="`/jobs/${job.id}`" class="font-semibold underline">{{
                job.name || job.number
              }}</NuxtLink>
              <span
                class="float-right"
                :class="job.dueDate < today ? 'font-semibold text-bad' : 'text-soft'"
                >{{
                  job.dueDate < today ? `overdue since ${shownDay(job.dueDate)}` : shownDay(job.dueDate)
                }}</span
              >
              <p class="text-xs text-soft">
                {{ [job.number, job.customer, stages[job.stage]].filter(Boolean).join(' · ') }}
              </p>
            </li>
          </ul>
          <p v-else class="border-y border-line bg-card px-3 py-4 text-center text-soft">
            No job is due in the next two weeks.
          </p>
        </section>
        <section aria-labelledby="waiting">
          <h2 id="waiting" class="mb-2 text-xl">Waiting for an answer</h2>
          <ul
            v-if="answer.waiting.length"
            class="border-y border-line bg-card"
            aria-label="Waiting for an answer"
          >
            <li v-for="one in answer.waiting" :key="one.job" class="border-line px-3 py-2 not-first:border-t">
              <NuxtLink :to="`/jobs/${one.job}/quotation`" class="font-semibold underline">{{
                one.jobName || one.number
              }}</NuxtLink>
              <span class="float-right text-soft">valid until {{ shownDay(one.until) }}</span>
              <p class="text-xs text-soft">
                Quotation {{ one.number }} · {{ one.name
                }}<template v-if="one.customer"> · {{ one.customer }}</template>
              </p>
            </li>
          </ul>
          <p v-else class="border-y border-line bg-card px-3 py-4 text-center text-soft">
            No quotation waits for an answer.
          </p>
        </section>
        <section aria-labelledby="flagged">
          <h2 id="flagged" class="mb-2 text-xl">Flagged by logbooks</h2>
          <ul
            v-if="answer.flagged.length"
            class="border-y border-line bg-card"
            aria-label="Flagged by logbooks"
          >
            <li
              v-for="one in answer.flagged"
              :key="one.craft"
              class="border-line px-3 py-2 not-first:border-t"
            >
              <NuxtLink :to="`/craft/${one.craft}`" class="font-semibold underline">{{
                one.name || 'Unnamed craft'
              }}</NuxtLink><span v-if="one.customer" class="text-soft"> · {{ one.customer }}</span>
              <p v-for="check in one.checks.slice(0, 3)" :key="check.id">
                {{ check.words }} <span class="text-soft">{{ check.why }}</span>
              </p>
              <p v-if="one.checks.length > 3" class="text-xs text-soft">
                and {{ one.checks.length - 3 }} more
              </p>
            </li>
          </ul>
          <p v-else class="border-y border-line bg-card px-3 py-4 text-center text-soft">
            Nothing is flagged.
          </p>
        </section>
        <section aria-labelledby="reminders-today">
          <h2 id="reminders-today" class="mb-2 text-xl">
            Reminders <NuxtLink to="/reminders" class="text-sm font-normal underline">All reminders</NuxtLink>
          </h2>
          <ReminderList :reminders="answer.reminders" with-craft @changed="load" />
        </section>
      </div>
    </template>
    <p v-else-if="!problem" class="text-soft" aria-busy="true">Loading…</p>
  </main>
</template>
