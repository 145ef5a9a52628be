<script setup lang="ts">
import type { Role } from '../../server/repositories/actor'
import { roleWords } from '../utils/people'

useHead({ title: 'Join · Jovial Anchor' })

interface Invited {
  readonly name: string
  readonly role: Role
  readonly isNew: boolean
}
const leastPassword = 10

/** The secret stands behind the `#`, so that it is sent to no server and kept in no log. */
const [kind = '', secret = ''] = useRoute().hash.slice(1).split('=')
const isSetup = kind === 'setup'
const invited = ref<Invited | null>(null)
const name = ref('')
const password = ref('')
const repeated = ref('')
const problem = ref('')
const isBusy = ref(false)
const isReady = computed(() => isSetup || invited.value !== null)

onMounted(async () => {
  if (isSetup) return
  const answer = await ask<Invited>('/api/session/invitation', asJson('POST', { token: secret }))
  if (answer.kind === 'ok') invited.value = answer.data
  else problem.value = problemOf(answer, 'The server cannot be reached.')
})

async function join(): Promise<void> {
  if (password.value !== repeated.value) {
    problem.value = 'The two passwords differ.'
    return
  }
  isBusy.value = true
  const answer = isSetup
    ? await ask(
        '/api/session/begin',
        asJson('POST', { code: secret, name: name.value, password: password.value }),
      )
    : await ask('/api/session/join', asJson('POST', { token: secret, password: password.value }))
  isBusy.value = false
  problem.value = problemOf(answer, 'The server cannot be reached. Nothing was saved.')
  if (answer.kind === 'ok') window.location.assign('/')
}
</script>

<template>
  <DoorPage :title="isSetup ? 'Set up the shop' : 'Join the shop'" :problem="problem">
    <template #about>
      <p v-if="isSetup" class="text-soft">You become the owner. You can then invite other people.</p>
      <p v-else-if="invited" class="text-soft">
        {{
          invited.isNew
            ? `Welcome, ${invited.name}. You join as ${roleWords[invited.role].toLowerCase()}.`
            : `${invited.name}, choose a new password. You are signed out everywhere else.`
        }}
      </p>
    </template>
    <form v-if="isReady" class="mt-4 grid gap-3" @submit.prevent="join">
      <label v-if="isSetup" class="block"
        ><span class="mb-1 block font-semibold">Your name</span
        ><input
          v-model="name"
          class="entry"
          aria-describedby="name-hint"
          autocomplete="username"
          maxlength="100"
          required
      /></label>
      <p v-if="isSetup" id="name-hint" class="-mt-2 text-xs text-soft">
        It stands on papers and in the history.
      </p>
      <label class="block"
        ><span class="mb-1 block font-semibold">Password</span
        ><input
          v-model="password"
          type="password"
          class="entry"
          autocomplete="new-password"
          aria-describedby="password-hint"
          :minlength="leastPassword"
          maxlength="200"
          required
      /></label>
      <p id="password-hint" class="-mt-2 text-xs text-soft">At least {{ leastPassword }} characters.</p>
      <label class="block"
        ><span class="mb-1 block font-semibold">Password again</span
        ><input
          v-model="repeated"
          type="password"
          class="entry"
          autocomplete="new-password"
          maxlength="200"
          required
      /></label>
      <p>
        <button type="submit" class="act" :disabled="isBusy">
          {{ isSetup ? 'Create owner' : invited?.isNew ? 'Join shop' : 'Save password' }}
        </button>
      </p>
    </form>
    <p v-else-if="problem" class="mt-3"><NuxtLink to="/sign-in" class="underline">Sign in</NuxtLink></p>
  </DoorPage>
</template>
