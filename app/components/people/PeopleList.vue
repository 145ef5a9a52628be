<script setup lang="ts">
import type { Role } from '../../../server/repositories/actor'
import type { PastName, PersonRow } from '../../../server/repositories/people'
import { ago } from '../../utils/dates'
import { roles, roleWords } from '../../utils/people'

/** The people of the shop, for its owner. */
const session = useAccount()
const people = ref<readonly PersonRow[] | null>(null)
const pastNames = ref<readonly PastName[]>([])
const problem = ref('')
const link = ref<{ name: string; token: string; days: number } | null>(null)
const name = ref('')
const role = ref<Role>('installer')
const leaving = ref<PersonRow | null>(null)
const unreachable = 'The server cannot be reached. Nothing was changed.'

async function load(): Promise<void> {
  const past = await ask<PastName[]>('/api/people/past')
  if (past.kind === 'ok') pastNames.value = past.data
  const answer = await ask<PersonRow[]>('/api/people')
  if (answer.kind === 'ok') people.value = answer.data
  else problem.value = problemOf(answer, 'The server cannot be reached.')
}
onMounted(load)

/** Does something to the people, and shows them again. */
async function change<T>(path: string, init: RequestInit): Promise<T | null> {
  const answer = await ask<T>(path, init)
  problem.value = problemOf(answer, unreachable)
  await load()
  return answer.kind === 'ok' ? answer.data : null
}
async function invite(): Promise<void> {
  const invited = await change<{ token: string; days: number }>(
    '/api/people',
    asJson('POST', { name: name.value, role: role.value }),
  )
  if (!invited) return
  link.value = { name: name.value, ...invited }
  name.value = ''
}
async function linkAgain(person: PersonRow): Promise<void> {
  const made = await change<{ token: string; days: number }>(
    `/api/people/${person.id}/link`,
    asJson('POST', {}),
  )
  if (made) link.value = { name: person.name, ...made }
}
const setRole = (person: PersonRow, next: Role) =>
  change(`/api/people/${person.id}`, asJson('PUT', { role: next }))
const signOut = (person: PersonRow) => change(`/api/people/${person.id}/sessions`, { method: 'DELETE' })
async function remove(): Promise<void> {
  const person = leaving.value
  leaving.value = null
  if (person) await change(`/api/people/${person.id}`, { method: 'DELETE' })
}
const isSelf = (person: PersonRow): boolean => person.id === session.person?.id
const stateOf = (person: PersonRow): string => {
  if (!person.hasJoined) return 'Invited, has not joined yet'
  if (person.sessions === 0) return 'Signed out'
  const places = person.sessions === 1 ? '1 device' : `${person.sessions} devices`
  return `Signed in on ${places}${person.seenAt ? `, last used ${ago(person.seenAt)}` : ''}`
}
</script>

<template>
  <section aria-labelledby="people-title">
    <h2 id="people-title" class="mb-2 text-xl">
      People of the shop <HelpLink topic="people" class="align-middle" />
    </h2>
    <p v-if="problem" role="alert" class="mb-3 border-l-4 border-bad bg-card px-3 py-2">{{ problem }}</p>
    <LinkCard v-if="link" v-bind="link" @close="link = null" />
    <ul v-if="people" aria-label="People" class="border-y border-line bg-card">
      <li
        v-for="person in people"
        :key="person.id"
        class="flex flex-wrap items-center gap-x-4 gap-y-2 border-line px-4 py-3 not-first:border-t"
      >
        <div class="min-w-0 grow basis-52">
          <h3 class="text-base">
            {{ person.name }}<span v-if="isSelf(person)" class="text-soft"> (you)</span>
          </h3>
          <p class="text-xs text-soft">{{ stateOf(person) }}</p>
        </div>
        <label
          ><span class="sr-only">Role of {{ person.name }}</span
          ><select
            class="entry"
            :value="person.role"
            @change="setRole(person, ($event.target as HTMLSelectElement).value as Role)"
          >
            <option v-for="one in roles" :key="one" :value="one">{{ roleWords[one] }}</option>
          </select></label
        >
        <button type="button" class="act-quiet" @click="linkAgain(person)">
          {{ person.hasJoined ? 'Reset password' : 'Show new link'
          }}<span class="sr-only"> of {{ person.name }}</span>
        </button>
        <button
          v-if="person.sessions > 0 && !isSelf(person)"
          type="button"
          class="act-quiet"
          @click="signOut(person)"
        >
          Sign out<span class="sr-only"> {{ person.name }} everywhere</span>
        </button>
        <button v-if="!isSelf(person)" type="button" class="act-quiet" @click="leaving = person">
          Remove<span class="sr-only"> {{ person.name }}</span>
        </button>
      </li>
    </ul>
    <p v-if="pastNames.length" class="mt-2 text-xs text-soft">
      Devices made changes under these names before people signed in:
      {{ pastNames.map(({ name: past, lastAt }) => `${past} (last ${ago(lastAt)})`).join(', ') }}.
    </p>
    <form class="mt-4 flex flex-wrap items-end gap-3" @submit.prevent="invite">
      <label class="block grow basis-52"
        ><span class="font-semibold">Name of a new person</span
        ><input v-model="name" class="entry" maxlength="100" autocomplete="off" required
      /></label>
      <label class="block"
        ><span class="font-semibold">Role</span
        ><select v-model="role" class="entry">
          <option v-for="one in roles" :key="one" :value="one">{{ roleWords[one] }}</option>
        </select></label
      >
      <button type="submit" class="act">Invite person</button>
    </form>
    <AppDialog
      :open="leaving !== null"
      :title="`Remove ${leaving?.name ?? ''}`"
      @update:open="leaving = null"
    >
      <p>They are signed out and cannot sign in again. History and papers keep their name.</p>
      <p class="mt-4"><button type="button" class="act" @click="remove">Remove person</button></p>
    </AppDialog>
  </section>
</template>
