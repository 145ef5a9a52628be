<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { crafts } from '#core/job/document'
import { asJson, ask } from '../../utils/api'
import { draftOfCraft, type CraftDraft, type CraftPage, type CraftRow } from '../../utils/craft'
import { ago } from '../../utils/dates'

useHead({ title: 'Craft · Jovial Anchor' })
useKeys({ ...shopKeys, '/': () => document.querySelector<HTMLElement>('#craft-words')?.focus() })
const account = useAccount()
const device = useDeviceName()
const words = ref('')
const isAdding = ref(false)
const addProblem = ref('')
const { rows, problem, load, more, hasMore } = usePages<CraftRow, CraftPage>(
  (after) => `/api/craft?${new URLSearchParams({ words: words.value, ...(after && { after }) })}`,
  (page) => page.crafts,
)
watch(words, useDebounceFn(load, 150))
onMounted(load)
async function add(draft: CraftDraft) {
  const answer = await ask<CraftRow>(
    '/api/craft',
    asJson('POST', { who: device.value || 'Unnamed device', ...draft }),
  )
  addProblem.value = problemOf(answer, 'The server cannot be reached. Nothing was saved.')
  if (answer.kind === 'ok') await navigateTo(`/craft/${answer.data.id}`)
}
</script>

<template>
  <main class="mx-auto max-w-6xl p-4 md:px-8 md:py-7">
    <header class="mb-3 flex flex-wrap items-end gap-x-6 gap-y-3">
      <div class="mr-auto">
        <h1 class="text-3xl">Craft</h1>
        <p class="text-soft">Vessels, vehicles, trailers and cabins with their jobs and logbooks.</p>
      </div>
      <button v-if="account.mayDecide" type="button" class="act" @click="isAdding = true">Add craft</button>
    </header>
    <CraftTabs />
    <label class="mb-3 block"
      ><span class="sr-only">Search craft</span
      ><input
        id="craft-words"
        v-model="words"
        type="search"
        class="entry"
        maxlength="200"
        placeholder="Search name, registration, place, owner"
    /></label>
    <p v-if="problem" role="alert" class="mb-3 border-l-4 border-bad bg-card px-3 py-2">{{ problem }}</p>
    <ul v-if="rows?.length" aria-label="Craft" class="border-y border-line bg-card">
      <li
        v-for="craft in rows"
        :key="craft.id"
        class="relative grid grid-cols-[1fr_auto] gap-x-4 border-line px-4 py-3 not-first:border-t hover:bg-paper/60 md:grid-cols-[16rem_1fr_9rem_8rem]"
      >
        <div class="min-w-0">
          <h2 class="truncate text-base">
            <NuxtLink :to="`/craft/${craft.id}`" class="after:absolute after:inset-0">{{
              craft.name || 'Unnamed craft'
            }}</NuxtLink>
          </h2>
          <p class="truncate text-xs text-soft">
            {{ [craft.kind && crafts[craft.kind], craft.registration].filter(Boolean).join(' · ') }}
          </p>
        </div>
        <p class="min-w-0 truncate max-md:col-start-1 max-md:row-start-2 max-md:text-xs">
          {{ craft.customer || 'No owner'
          }}<span v-if="craft.location" class="text-soft"> · {{ craft.location }}</span>
        </p>
        <p class="text-soft max-md:col-start-2 max-md:row-start-1">
          {{ craft.jobs === 1 ? '1 job' : `${craft.jobs} jobs` }}
        </p>
        <p class="text-xs text-soft max-md:col-start-2 max-md:row-start-2">{{ ago(craft.lastAt) }}</p>
      </li>
    </ul>
    <p v-if="hasMore" class="mt-3 text-center">
      <button type="button" class="act-quiet" @click="more">Show more</button>
    </p>
    <p v-if="rows?.length === 0" class="border-y border-line bg-card px-4 py-10 text-center text-soft">
      {{ words ? 'No craft found. Try fewer letters.' : 'No craft yet. Each job brings its own.' }}
    </p>
    <AppDialog v-model:open="isAdding" title="Add craft">
      <p v-if="addProblem" role="alert" class="mb-3 text-bad">{{ addProblem }}</p>
      <CraftForm :draft="draftOfCraft()" button="Add craft" @save="add" />
    </AppDialog>
  </main>
</template>
