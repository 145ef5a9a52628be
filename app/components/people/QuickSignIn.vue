<script setup lang="ts">
import type { PasskeyRow } from '../../../server/repositories/passkeys'
import { ago } from '../../utils/dates'
import { addPasskey, arePasskeysPossible } from '../../utils/passkeys'
import { deviceWords } from '../../utils/people'
import type { Answer } from '../../utils/api'

/** Faster ways to sign in: a PIN on a device that several people share, and passkeys. */
const account = useAccount()
const unreachable = 'The server cannot be reached. Nothing was changed.'
const problem = ref('')
const done = ref('')
const pin = ref('')
const { host } = window.location
const hasPin = computed(() => account.pinPeople.some(({ id }) => id === account.owner))

async function change(words: string, change: Promise<Answer<unknown>>): Promise<boolean> {
  const answer = await change
  problem.value = problemOf(answer, unreachable)
  done.value = answer.kind === 'ok' ? words : ''
  return answer.kind === 'ok'
}
async function setPin(): Promise<void> {
  if (
    !(await change('PIN saved on this device.', ask('/api/session/pin', asJson('PUT', { pin: pin.value }))))
  )
    return
  pin.value = ''
  await account.loadPinPeople()
}
async function removePin(): Promise<void> {
  await change('PIN removed from this device.', ask('/api/session/pin', { method: 'DELETE' }))
  await account.loadPinPeople()
}

const passkeys = ref<readonly PasskeyRow[]>([])
async function loadPasskeys(): Promise<void> {
  const answer = await ask<PasskeyRow[]>('/api/session/passkeys')
  if (answer.kind === 'ok') passkeys.value = answer.data
}
onMounted(loadPasskeys)
async function add(): Promise<void> {
  await change('Passkey added.', addPasskey())
  await loadPasskeys()
}
async function remove(id: string): Promise<void> {
  const path = `/api/session/passkeys/${encodeURIComponent(id)}`
  await change('Passkey removed.', ask(path, { method: 'DELETE' }))
  await loadPasskeys()
}
</script>

<template>
  <section aria-labelledby="quick-title">
    <h2 id="quick-title" class="mb-2 text-xl">Sign in faster</h2>
    <p v-if="problem" role="alert" class="mb-3 border-l-4 border-bad bg-card px-3 py-2">{{ problem }}</p>
    <p v-if="done" role="status" class="mb-3 text-suits">{{ done }}</p>
    <div class="grid gap-5 border-y border-line bg-card px-4 py-3 md:grid-cols-2">
      <form class="grid content-start gap-2" @submit.prevent="setPin">
        <h3 class="text-base">PIN on this device</h3>
        <p class="text-soft">
          For a laptop that several people share. Each then changes to their own name with a PIN.
        </p>
        <p v-if="hasPin">You have a PIN here. A new one replaces it.</p>
        <div class="flex flex-wrap items-end gap-2">
          <label class="block"
            ><span class="mb-1 block font-semibold">PIN, 4 to 8 digits</span
            ><input
              v-model="pin"
              type="password"
              inputmode="numeric"
              autocomplete="off"
              class="entry w-40"
              minlength="4"
              maxlength="8"
              pattern="[0-9]{4,8}"
              required /></label
          ><button type="submit" class="act">Save PIN</button
          ><button v-if="hasPin" type="button" class="act-quiet" @click="removePin">Remove PIN</button>
        </div>
        <p v-if="account.canSwitch">
          <NuxtLink to="/sign-in" class="underline">Switch person</NuxtLink>
        </p>
      </form>
      <div class="grid content-start gap-2">
        <h3 class="text-base">Passkeys</h3>
        <p class="text-soft">Sign in with the fingerprint, face or screen lock of your own device.</p>
        <ul v-if="passkeys.length > 0" aria-label="Your passkeys" class="grid gap-2">
          <li
            v-for="{ id, device, usedAt, createdAt } in passkeys"
            :key="id"
            class="flex flex-wrap items-center gap-3"
          >
            <span class="grow"
              >{{ deviceWords(device) }}
              <span class="block text-xs text-soft">{{
                usedAt ? `Last used ${ago(usedAt)}` : `Added ${ago(createdAt)}`
              }}</span></span
            ><button type="button" class="act-quiet" @click="remove(id)">
              Remove<span class="sr-only"> passkey of {{ deviceWords(device) }}</span>
            </button>
          </li>
        </ul>
        <p v-if="arePasskeysPossible()">
          <button type="button" class="act" @click="add">Add passkey</button>
        </p>
        <p v-else>
          Passkeys need an address with a name and a trusted certificate. This page is at
          <span class="font-semibold break-all">{{ host }}</span>.
        </p>
      </div>
    </div>
  </section>
</template>
