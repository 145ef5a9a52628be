<script setup lang="ts">
import { useDebounceFn, useIntervalFn } from '@vueuse/core'
import { crafts, emptyJob, stages, type Stage } from '#core/job/document'
import { temporaryNumber } from '#core/job/number'
import { typicals, type TypicalId } from '#core/job/typicals'
import { verdicts, verdictWords, type Verdict } from '#core/system/verdict'
import { asJson, ask, type JobPage, type JobRow, type StoredJob } from '../utils/api'
import { isReachable } from '../device/connection'
import { waitingIn } from '#core/sync/saving'
import { ago } from '../utils/dates'
import { keptHere } from '../utils/kept-words'

useHead({ title: 'Jobs · Jovial Anchor' })

const device = useDeviceName()
const session = useAccount()
const bench = useJob()
const sync = useSync()
const kept = useKeptJobs()
/** The error of the last action. */
const problem = ref('')
const words = ref('')
const verdict = ref<Verdict | ''>('')
const { stage: asked } = useRoute().query
const stage = ref<Stage | 'deleted' | ''>((Object.keys(stages) as Stage[]).find((one) => one === asked) ?? '')
const search = computed(() => ({ words: words.value, verdict: verdict.value, stage: stage.value }))
const sorts = [
  ['changed', 'Last changed'],
  ['due', 'Due date'],
  ['number', 'Number'],
  ['name', 'Vehicle or vessel'],
  ['customer', 'Customer'],
] as const
const sort = ref<(typeof sorts)[number][0]>('changed')
const largestFileMb = 2

const {
  rows: jobs,
  problem: listProblem,
  load,
  more,
  again,
  hasMore,
  isKept,
} = usePages<JobRow, JobPage>(
  (after) =>
    `/api/jobs?${new URLSearchParams({
      ...(words.value && { words: words.value }),
      ...(verdict.value && { verdict: verdict.value }),
      ...(stage.value === 'deleted' ? { deleted: 'true' } : stage.value && { stage: stage.value }),
      ...(sort.value !== 'changed' && { sort: sort.value }),
      ...(after && { after }),
    })}`,
  (page) => page.jobs,
  async () => (stage.value === 'deleted' ? null : kept.find(search.value)),
)
/** Jobs of this device alone stand at the head of the list until they have a number. */
const listed = computed(
  () =>
    jobs.value && [
      ...kept.made(search.value).filter(({ id }) => !jobs.value!.some((job) => job.id === id)),
      ...jobs.value,
    ],
)
/** Changes of each job that are not on the server yet. */
const unsent = computed(() => {
  const changes = new Map<string, number>()
  for (const draft of sync.drafts) changes.set(draft.job, (changes.get(draft.job) ?? 0) + waitingIn(draft))
  return changes
})
const together = useTogether()
const againSoon = useDebounceFn(() => jobs.value && again(), 300)
watch(() => together.changes, againSoon)
/** The list is asked for again when the server can be reached again, or has been sent something. */
watch([isReachable, () => sync.drafts.length], ([reachable]) => reachable && jobs.value && void again())
/** A job that is being checked is so for a moment: the list is asked again until none is. */
const isJudging = computed(
  () => jobs.value?.some((job) => job.verdict === null && job.reason === '') ?? false,
)
useIntervalFn(() => {
  if (isJudging.value && document.visibilityState === 'visible') void again()
}, 1500)
const loadSoon = useDebounceFn(load, 150)
watch([words, verdict, stage, sort], loadSoon)
onMounted(load)

/** Goes to the job that was made, or says why there is none. */
async function openNew(answer: ReturnType<typeof ask<StoredJob>>) {
  const result = await answer
  if (result.kind === 'ok') await navigateTo(`/jobs/${result.data.id}`)
  else problem.value = problemOf(result, 'The server cannot be reached. Nothing was created.')
}

const who = () => signedAs(device.value)
async function create(typical?: TypicalId) {
  const answer = await ask<StoredJob>('/api/jobs', asJson('POST', { who: who(), typical }))
  if (answer.kind !== 'unreachable') return openNew(Promise.resolve(answer))
  // Without the server the job is made here. It gets its number later.
  const number = temporaryNumber(sync.made.length + 1)
  const made = typical ? typicals[typical].job(number) : emptyJob(number, 'New job')
  await navigateTo(`/jobs/${bench.make(made)}`)
}
async function bringBack(id: string) {
  const answer = await ask(`/api/jobs/${id}/bring-back`, asJson('POST', { who: who() }))
  problem.value = problemOf(answer, 'The server cannot be reached. Nothing was restored.')
  await load()
}
const choosing = ref(false)
useKeys({
  ...shopKeys,
  '/': () => document.querySelector<HTMLElement>('#job-words')?.focus(),
})

async function readFile(event: Event) {
  const [file] = takeFiles(event)
  problem.value = ''
  if (!file) return
  if (file.size > largestFileMb * 1024 * 1024) {
    problem.value = `${file.name} is ${Math.round(file.size / 1024 / 1024)} MB. A job file has at most ${largestFileMb} MB. Nothing was loaded.`
    return
  }
  const result = await ask<StoredJob>(`/api/jobs/import?who=${encodeURIComponent(who())}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: file,
  })
  if (result.kind === 'ok') await navigateTo(`/jobs/${result.data.id}`)
  else
    problem.value = `${file.name}: ${problemOf(result, 'the server cannot be reached')}. Nothing was loaded.`
}
</script>

<template>
  <main class="mx-auto max-w-6xl p-4 md:px-8 md:py-7">
    <header class="mb-5 flex flex-wrap items-end gap-x-6 gap-y-3">
      <div class="mr-auto">
        <h1 class="text-3xl">Jobs</h1>
        <p class="text-soft">
          Will a lithium battery work with this charging system? Open a job to find out.
        </p>
      </div>
      <label class="act-quiet focus-within:outline-2 focus-within:outline-sea"
        >Import job file<input type="file" accept=".json,application/json" class="sr-only" @change="readFile"
      /></label>
      <button type="button" class="act-quiet" @click="choosing = true">New from template</button>
      <button type="button" class="act" @click="create()">New job</button>
    </header>

    <div class="mb-3 flex flex-wrap gap-3">
      <label class="min-w-60 grow"
        ><span class="sr-only">Search jobs</span
        ><input
          id="job-words"
          v-model="words"
          type="search"
          class="entry"
          maxlength="200"
          placeholder="Search number, name, customer, registration, place, battery"
      /></label>
      <label
        ><span class="sr-only">Verdict</span>
        <select v-model="verdict" class="entry">
          <option value="">All verdicts</option>
          <option v-for="v in verdicts" :key="v" :value="v">{{ verdictWords[v] }}</option>
        </select>
      </label>
      <label
        ><span class="sr-only">Stage</span>
        <select v-model="stage" class="entry">
          <option value="">All stages</option>
          <option v-for="(word, s) in stages" :key="s" :value="s">{{ word }}</option>
          <option value="deleted">Deleted</option>
        </select>
      </label>
      <SortBy v-model="sort" :sorts="sorts" />
    </div>

    <p
      v-for="said in [listProblem, problem].filter(Boolean)"
      :key="said"
      role="alert"
      class="mb-3 border-l-4 border-bad bg-card px-3 py-2 break-words"
    >
      {{ said }}
    </p>

    <p
      v-if="isKept || sync.waiting > 0"
      role="status"
      class="mb-3 border-l-4 border-changed bg-card px-3 py-2"
      data-testid="waiting"
    >
      <template v-if="isKept">Offline. These are the jobs of the last 14 days and those you pinned. </template
      ><template v-if="sync.waiting > 0"
        >{{ keptHere(sync.waiting) }}. They are sent when the server can be reached.</template
      >
    </p>
    <p v-if="sync.ofOthers > 0" role="status" class="mb-3 border-l-4 border-changed bg-card px-3 py-2">
      Changes of another person wait on this device. They are sent when that person signs in here.
    </p>

    <ul v-if="listed?.length" aria-label="Jobs" class="border-y border-line bg-card">
      <li
        v-for="job in listed"
        :key="job.id"
        class="relative grid grid-cols-[auto_1fr_auto] items-center gap-x-4 gap-y-1 border-line px-4 py-3 not-first:border-t hover:bg-paper/60 md:grid-cols-[auto_14rem_1fr_9rem_8rem]"
      >
        <VerdictMark v-if="job.verdict" :verdict="job.verdict" size="large" /><span v-else class="size-6" />
        <div class="min-w-0">
          <h2 class="truncate text-base">
            <template v-if="stage === 'deleted'">{{ job.name || 'Unnamed job' }}</template><NuxtLink
              v-else
              :to="`/jobs/${job.id}`"
              class="after:absolute after:inset-0"
              >{{ job.name || 'Unnamed job' }}</NuxtLink
            >
          </h2>
          <p class="truncate text-xs text-soft">
            {{ job.number
            }}<template v-if="job.craft"> · {{ crafts[job.craft as keyof typeof crafts] }}</template
            ><template v-if="job.customer"> · {{ job.customer }}</template>
          </p>
        </div>
        <div class="min-w-0 max-md:col-span-2 max-md:col-start-2 max-md:row-start-2">
          <p class="font-semibold" :class="job.verdict ? verdictColour[job.verdict] : 'text-soft'">
            <template v-if="job.specifiedVerdict">As found: </template>{{ job.headline }}
          </p>
          <p
            v-if="job.specifiedVerdict"
            class="flex items-center gap-1.5 font-semibold"
            :class="verdictColour[job.specifiedVerdict]"
          >
            <VerdictMark :verdict="job.specifiedVerdict" size="small" />As specified:
            {{ job.specifiedHeadline }}
          </p>
          <p class="line-clamp-2 text-xs text-soft">{{ job.reason }}</p>
          <p v-if="unsent.has(job.id)" class="text-xs font-semibold text-changed">
            {{ keptHere(unsent.get(job.id)!) }}
          </p>
        </div>
        <p class="text-soft max-md:col-start-3 max-md:row-start-1 max-md:text-right max-md:text-xs">
          <span class="block text-ink">{{ stages[job.stage as keyof typeof stages] }}</span><template
            v-if="job.dueDate"
            >due {{ job.dueDate }}</template
          >
        </p>
        <button v-if="stage === 'deleted'" type="button" class="act-quiet" @click="bringBack(job.id)">
          Restore<span class="sr-only"> {{ job.name || job.number }}</span>
        </button>
        <p v-else class="text-xs text-soft max-md:hidden">
          {{ ago(job.updatedAt) }}<span class="block truncate">by {{ job.updatedBy }}</span>
        </p>
      </li>
    </ul>
    <p v-if="hasMore && !isKept" class="mt-3 text-center">
      <button type="button" class="act-quiet" @click="more">Show more</button>
    </p>
    <div v-if="listed?.length === 0" class="border-y border-line bg-card px-4 py-10 text-center text-soft">
      <AnchorMark class="mx-auto mb-2 size-10" />
      <p v-if="stage === 'deleted'">Nothing was deleted in the last 30 days.</p>
      <p v-else-if="words || verdict || stage">No job found. Try fewer letters.</p>
      <p v-else>No jobs yet. Start the first one.</p>
    </div>

    <AppDialog v-model:open="choosing" title="Start from a template">
      <p class="text-soft">Everything in it is assumed. Correct it on the walk-round.</p>
      <ul class="mt-3 grid gap-2 sm:grid-cols-2">
        <li v-for="(typical, id) in typicals" :key="id">
          <button
            type="button"
            class="h-full w-full border border-edge p-3 text-left hover:border-ink"
            @click="create(id)"
          >
            <span class="block font-semibold">{{ typical.title }}</span><span
              class="block text-xs text-soft"
              >{{ typical.about }}</span
            >
          </button>
        </li>
      </ul>
    </AppDialog>

    <footer class="mt-6 flex flex-wrap items-center gap-3 text-soft">
      <p v-if="session.person">Changes made here show the name {{ session.person.name }}.</p>
      <template v-else>
        <label class="flex items-center gap-2"
          >Name shown on changes made here
          <input v-model="device" class="entry w-44" maxlength="100" autocomplete="off"
        /></label>
        <p class="text-xs">
          This application answers only on this machine.
          <NuxtLink to="/people" class="underline">Use it with phones and colleagues</NuxtLink>
        </p>
      </template>
    </footer>
  </main>
</template>
