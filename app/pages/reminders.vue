<script setup lang="ts">
import { asJson, ask, read } from '../utils/api'
import { ago } from '../utils/dates'
import type { ReminderRow } from '../utils/craft'

useHead({ title: 'Reminders · Jovial Anchor' })
useKeys(shopKeys)
const account = useAccount()
const device = useDeviceName()
const reminders = shallowRef<readonly ReminderRow[] | null>(null)
const feed = shallowRef<{ createdAt: string; createdBy: string; readAt: string | null } | null>(null)
const token = ref('')
const problem = ref('')
const unreachable = 'The server cannot be reached.'
async function load() {
  const answer = await read<readonly ReminderRow[]>('/api/reminders')
  problem.value = problemOf(answer, unreachable)
  if (answer.kind === 'ok') reminders.value = answer.data
}
async function loadFeed() {
  if (!account.mayDecide) return
  const answer = await read<{ feed: typeof feed.value }>('/api/calendar-feed')
  if (answer.kind === 'ok') feed.value = answer.data.feed
}
onMounted(() => Promise.all([load(), loadFeed()]))
async function makeFeed() {
  const answer = await ask<{ token: string }>(
    '/api/calendar-feed',
    asJson('POST', { who: signedAs(device.value) }),
  )
  problem.value = problemOf(answer, unreachable)
  if (answer.kind === 'ok') token.value = answer.data.token
  await loadFeed()
}
async function endFeed() {
  const answer = await ask('/api/calendar-feed', { method: 'DELETE' })
  problem.value = problemOf(answer, unreachable)
  token.value = ''
  await loadFeed()
}
const address = computed(() => `${window.location.origin}/api/calendar/${token.value}.ics`)
</script>

<template>
  <main class="mx-auto max-w-6xl p-4 md:px-8 md:py-7">
    <header class="mb-3 flex flex-wrap items-end gap-x-6 gap-y-3">
      <div class="mr-auto">
        <h1 class="text-3xl">Reminders</h1>
        <p class="text-soft">What to do on which craft, and when.</p>
      </div>
      <a href="/api/reminders/calendar" download="reminders.ics" class="act-quiet">Export calendar</a>
    </header>
    <CraftTabs />
    <p v-if="problem" role="alert" class="mb-3 border-l-4 border-bad bg-card px-3 py-2">{{ problem }}</p>
    <ReminderList v-if="reminders" :reminders="reminders" with-craft is-top @changed="load" />
    <section v-if="account.mayDecide" class="mt-8 border-t border-line pt-4" aria-labelledby="feed">
      <h2 id="feed" class="text-xl">Calendar address</h2>
      <p class="max-w-prose text-soft">
        A calendar that subscribes to this address shows the open reminders. Anyone who has the address can
        read them.
      </p>
      <p v-if="feed" class="mt-1">
        Made {{ ago(feed.createdAt) }} by {{ feed.createdBy }}.
        {{ feed.readAt ? `Last read ${ago(feed.readAt)}.` : 'Not read yet.' }}
      </p>
      <ShownOnce v-if="token" :text="address" what="link" @close="token = ''" />
      <p class="mt-2 flex flex-wrap gap-2">
        <button type="button" class="act-quiet" @click="makeFeed">
          {{ feed ? 'Replace address' : 'Make address' }}
        </button>
        <button v-if="feed" type="button" class="act-quiet" @click="endFeed">End address</button>
      </p>
    </section>
  </main>
</template>
