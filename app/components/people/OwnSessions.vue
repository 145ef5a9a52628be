<script setup lang="ts">
import { forgetKept } from '../../device/database'
import type { SessionRow } from '../../../server/repositories/people'
import { ago } from '../../utils/dates'
import { deviceWords } from '../../utils/people'

/** Where the person is signed in. */
const sessions = ref<readonly (SessionRow & { isThis: boolean })[]>([])
const problem = ref('')
async function load(): Promise<void> {
  const answer = await ask<(SessionRow & { isThis: boolean })[]>('/api/session/all')
  if (answer.kind === 'ok') sessions.value = answer.data
  else problem.value = problemOf(answer, 'The server cannot be reached.')
}
onMounted(load)
async function end(id: string): Promise<void> {
  problem.value = problemOf(
    await ask(`/api/session/${id}`, { method: 'DELETE' }),
    'The server cannot be reached. Nothing was changed.',
  )
  await load()
}
async function signOut(): Promise<void> {
  const answer = await ask('/api/session', { method: 'DELETE' })
  problem.value = problemOf(answer, 'The server cannot be reached. You are still signed in.')
  if (answer.kind !== 'ok') return
  await forgetKept()
  window.location.assign('/sign-in')
}
</script>

<template>
  <section aria-labelledby="own-title">
    <h2 id="own-title" class="mb-2 text-xl">Where you are signed in</h2>
    <p v-if="problem" role="alert" class="mb-3 border-l-4 border-bad bg-card px-3 py-2">{{ problem }}</p>
    <ul aria-label="Your devices" class="border-y border-line bg-card">
      <li
        v-for="session in sessions"
        :key="session.id"
        class="flex flex-wrap items-center gap-x-4 gap-y-2 border-line px-4 py-3 not-first:border-t"
      >
        <div class="min-w-0 grow basis-52">
          <h3 class="text-base">{{ deviceWords(session.device) }}</h3>
          <p class="text-xs text-soft">
            {{ session.isThis ? 'This device' : `Last used ${ago(session.seenAt)}` }}
          </p>
        </div>
        <button v-if="session.isThis" type="button" class="act" @click="signOut">Sign out</button
        ><button v-else type="button" class="act-quiet" @click="end(session.id)">
          Sign out there<span class="sr-only">: {{ deviceWords(session.device) }}</span>
        </button>
      </li>
    </ul>
  </section>
</template>
