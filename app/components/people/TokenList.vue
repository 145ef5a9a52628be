<script setup lang="ts">
import type { Role } from '../../../server/repositories/actor'
import type { TokenRow } from '../../../server/repositories/tokens'
import { ago } from '../../utils/dates'
import { roles, roleWords } from '../../utils/people'

/** Keys with which other programs use the application, for the owner. */
const tokens = ref<readonly TokenRow[] | null>(null)
const problem = ref('')
const made = ref<{ name: string; token: string } | null>(null)
const name = ref('')
const role = ref<Role>('apprentice')
const days = ref(90)

async function load(): Promise<void> {
  const answer = await ask<TokenRow[]>('/api/tokens')
  if (answer.kind === 'ok') tokens.value = answer.data
  else problem.value = problemOf(answer, 'The server cannot be reached.')
}
onMounted(load)
async function make(): Promise<void> {
  const wanted = { name: name.value, role: role.value, days: days.value }
  const answer = await ask<{ token: string }>('/api/tokens', asJson('POST', wanted))
  problem.value = problemOf(answer, 'The server cannot be reached. No key was made.')
  if (answer.kind !== 'ok') return
  made.value = { name: name.value, token: answer.data.token }
  name.value = ''
  await load()
}
async function revoke(token: TokenRow): Promise<void> {
  const answer = await ask(`/api/tokens/${token.id}`, { method: 'DELETE' })
  problem.value = problemOf(answer, 'The server cannot be reached. The key still works.')
  await load()
}
const stateOf = ({ role: may, endsAt, usedAt }: TokenRow): string =>
  `${roleWords[may]}, ends ${ago(endsAt)}, ${usedAt ? `last used ${ago(usedAt)}` : 'never used'}`
</script>

<template>
  <section aria-labelledby="tokens-title">
    <h2 id="tokens-title" class="text-xl">Keys for other programs</h2>
    <p class="mb-2 text-soft">
      A program with a key can do what its role can. The help of the API is in docs/api.md.
    </p>
    <p v-if="problem" role="alert" class="mb-3 border-l-4 border-bad bg-card px-3 py-2">{{ problem }}</p>
    <div v-if="made" class="mb-3 border border-edge bg-card p-4">
      <p>This is the key of {{ made.name }}. Copy it now: it is not shown again.</p>
      <ShownOnce :text="made.token" what="key" @close="made = null" />
    </div>
    <ul v-if="tokens?.length" aria-label="Keys" class="border-y border-line bg-card">
      <li
        v-for="token in tokens"
        :key="token.id"
        class="flex flex-wrap items-center gap-x-4 gap-y-2 border-line px-4 py-3 not-first:border-t"
      >
        <div class="min-w-0 grow basis-52">
          <h3 class="text-base">{{ token.name }}</h3>
          <p class="text-xs text-soft">{{ stateOf(token) }}</p>
        </div>
        <button type="button" class="act-quiet" @click="revoke(token)">
          Revoke key<span class="sr-only"> of {{ token.name }}</span>
        </button>
      </li>
    </ul>
    <form class="mt-4 flex flex-wrap items-end gap-3" @submit.prevent="make">
      <label class="block grow basis-52"
        ><span class="font-semibold">Name of the program</span
        ><input v-model="name" class="entry" maxlength="100" autocomplete="off" required
      /></label>
      <label class="block"
        ><span class="font-semibold">Role of the program</span
        ><select v-model="role" class="entry">
          <option v-for="one in roles" :key="one" :value="one">{{ roleWords[one] }}</option>
        </select></label
      >
      <label class="block"
        ><span class="font-semibold">Days</span
        ><input v-model.number="days" type="number" min="1" max="730" class="entry w-24" required
      /></label>
      <button type="submit" class="act-quiet">Make key</button>
    </form>
  </section>
</template>
