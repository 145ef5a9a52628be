<script setup lang="ts">
useHead({ title: 'Sign in · Jovial Anchor' })

const session = useAccount()
const route = useRoute()
const name = ref('')
const password = ref('')
const problem = ref('')
const isBusy = ref(false)

/** Only a path of this application, so that a link cannot lead elsewhere. */
const target = computed(() => {
  const to = String(route.query.to ?? '/')
  return /^\/(?![/\\])/.test(to) ? to : '/'
})
async function signIn(): Promise<void> {
  isBusy.value = true
  const answer = await ask('/api/session', asJson('POST', { name: name.value, password: password.value }))
  isBusy.value = false
  problem.value = problemOf(
    answer,
    'The server cannot be reached. Check that the phone is in the shop’s network.',
  )
  // Everything is loaded again for the person who is signed in now.
  if (answer.kind === 'ok') window.location.assign(target.value)
}
</script>

<template>
  <DoorPage title="Sign in" :problem="problem">
    <template #about>
      <p v-if="session.needsOwner" class="mt-1">
        Nobody has an account yet. Open the owner’s link that the terminal shows, or scan its code.
      </p>
      <p v-else class="text-soft">The owner of the shop gives you a link to join.</p>
    </template>
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
      <p><button type="submit" class="act" :disabled="isBusy">Sign in</button></p>
    </form>
  </DoorPage>
</template>
