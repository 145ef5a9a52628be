<script setup lang="ts">
import { arePasskeysPossible, enterWithPasskey } from '../utils/passkeys'

useHead({ title: 'Sign in · Jovial Anchor' })

const session = useAccount()
const route = useRoute()
const name = ref('')
const password = ref('')
const problem = ref('')
const isBusy = ref(false)

/** Only a path of this application, so that a link cannot lead elsewhere; and not this page again. */
const target = computed(() => {
  const to = String(route.query.to ?? '/')
  return /^\/(?![/\\])(?!sign-in)/.test(to) ? to : '/'
})
async function signIn(): Promise<void> {
  isBusy.value = true
  const answer = await ask('/api/session', asJson('POST', { name: name.value, password: password.value }))
  isBusy.value = false
  problem.value = problemOf(
    answer,
    'The server cannot be reached. Check that the phone is in the shop’s network.',
  )
  if (answer.kind === 'ok') enter()
}
/** Everything is loaded again for the person who is signed in now. */
function enter(): void {
  window.location.assign(target.value)
}
async function usePasskey(): Promise<void> {
  const answer = await enterWithPasskey()
  problem.value = problemOf(answer, 'The server cannot be reached.')
  if (answer.kind === 'ok') enter()
}
</script>

<template>
  <DoorPage :title="session.person ? 'Switch person' : 'Sign in'" :problem="problem">
    <template #about>
      <p v-if="session.needsOwner" class="mt-1">
        Nobody has an account yet. Open the owner’s link that the terminal shows, or scan its code.
      </p>
      <p v-else-if="session.pinPeople.length === 0" class="text-soft">
        The owner of the shop gives you a link to join.
      </p>
    </template>
    <PinEntry v-if="session.pinPeople.length > 0" @entered="enter" />
    <h2 v-if="session.pinPeople.length > 0" class="mt-6 text-xl">Somebody else</h2>
    <form v-if="!session.needsOwner" class="mt-4 grid gap-3" @submit.prevent="signIn">
      <label class="block"
        ><span class="mb-1 block font-semibold">Name</span
        ><input v-model="name" class="entry" autocomplete="username" maxlength="100" required
      /></label>
      <label class="block"
        ><span class="mb-1 block font-semibold">Password</span
        ><input
          v-model="password"
          type="password"
          class="entry"
          autocomplete="current-password"
          maxlength="200"
          required
      /></label>
      <p class="flex flex-wrap gap-3">
        <button type="submit" class="act" :disabled="isBusy">Sign in</button
        ><button v-if="arePasskeysPossible()" type="button" class="act-quiet" @click="usePasskey">
          Use passkey
        </button>
      </p>
    </form>
  </DoorPage>
</template>
