<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { asJson, ask } from '../../utils/api'
import type { CustomerPage, CustomerRow } from '../../utils/craft'

useHead({ title: 'Customers · Jovial Anchor' })
useKeys({ ...shopKeys, '/': () => document.querySelector<HTMLElement>('#customer-words')?.focus() })
const account = useAccount()
const device = useDeviceName()
const words = ref('')
const isAdding = ref(false)
const addProblem = ref('')
const { rows, problem, load, more, hasMore } = usePages<CustomerRow, CustomerPage>(
  (after) => `/api/customers?${new URLSearchParams({ words: words.value, ...(after && { after }) })}`,
  (page) => page.customers,
)
watch(words, useDebounceFn(load, 150))
onMounted(load)
async function add(entry: { name: string; contact: string; notes: string }) {
  const answer = await ask<CustomerRow>(
    '/api/customers',
    asJson('POST', { who: device.value || 'Unnamed device', ...entry }),
  )
  addProblem.value = problemOf(answer, 'The server cannot be reached. Nothing was saved.')
  if (answer.kind === 'ok') await navigateTo(`/customers/${answer.data.id}`)
}
const counted = (count: number, word: string): string => `${count} ${count === 1 ? word : `${word}s`}`
</script>

<template>
  <main class="mx-auto max-w-6xl p-4 md:px-8 md:py-7">
    <header class="mb-3 flex flex-wrap items-end gap-x-6 gap-y-3">
      <div class="mr-auto">
        <h1 class="text-3xl">Customers</h1>
        <p class="text-soft">Each with their craft and papers.</p>
      </div>
      <button v-if="account.mayDecide" type="button" class="act" @click="isAdding = true">
        Add customer
      </button>
    </header>
    <CraftTabs />
    <label class="mb-3 block"
      ><span class="sr-only">Search customers</span
      ><input
        id="customer-words"
        v-model="words"
        type="search"
        class="entry"
        maxlength="200"
        placeholder="Search name or contact"
    /></label>
    <p v-if="problem" role="alert" class="mb-3 border-l-4 border-bad bg-card px-3 py-2">{{ problem }}</p>
    <ul v-if="rows?.length" aria-label="Customers" class="border-y border-line bg-card">
      <li
        v-for="one in rows"
        :key="one.id"
        class="relative grid grid-cols-[1fr_auto] gap-x-4 border-line px-4 py-3 not-first:border-t hover:bg-paper/60"
      >
        <div class="min-w-0">
          <h2 class="truncate text-base">
            <NuxtLink :to="`/customers/${one.id}`" class="after:absolute after:inset-0">{{
              one.name
            }}</NuxtLink>
          </h2>
          <p class="truncate text-xs text-soft">{{ one.contact || 'No contact' }}</p>
        </div>
        <p class="text-right text-soft">
          {{ one.crafts }} craft<span class="block text-xs">{{ counted(one.jobs, 'job') }}</span>
        </p>
      </li>
    </ul>
    <p v-if="hasMore" class="mt-3 text-center">
      <button type="button" class="act-quiet" @click="more">Show more</button>
    </p>
    <p v-if="rows?.length === 0" class="border-y border-line bg-card px-4 py-10 text-center text-soft">
      {{ words ? 'No customer found. Try fewer letters.' : 'No customers yet. Each job brings its own.' }}
    </p>
    <AppDialog v-model:open="isAdding" title="Add customer">
      <p v-if="addProblem" role="alert" class="mb-3 text-bad">{{ addProblem }}</p>
      <CustomerForm button="Add customer" @save="add" />
    </AppDialog>
  </main>
</template>
