<script setup lang="ts">
import { ask } from '../utils/api'
import { shownDay } from '../utils/craft'

useHead({ title: 'Export and import · Jovial Anchor' })
useKeys(shopKeys)
const account = useAccount()
const problem = ref('')
const done = ref('')
const isBusy = ref(false)
async function take(event: Event) {
  const [file] = takeFiles(event)
  if (!file) return
  isBusy.value = true
  problem.value = ''
  done.value = ''
  const answer = await ask<{ madeAt: string; files: number }>('/api/archive', {
    method: 'POST',
    headers: { 'content-type': 'application/zip' },
    body: file,
  })
  isBusy.value = false
  problem.value = problemOf(answer, 'The server cannot be reached. Nothing was changed.')
  if (answer.kind !== 'ok') return
  done.value = `The archive of ${shownDay(answer.data.madeAt)} is in this workshop now.`
  await useShop().load()
}
</script>

<template>
  <main class="mx-auto max-w-3xl p-4 md:px-8 md:py-7">
    <h1 class="text-3xl">Export and import</h1>
    <template v-if="account.mayErase">
      <section class="mt-5" aria-labelledby="export">
        <h2 id="export" class="text-xl">Export the workshop</h2>
        <p class="my-2 max-w-prose">
          One ZIP file with all jobs, craft, customers, papers, logbooks, photos, parts and rules, in open
          formats with a digest of each file. It holds names and addresses of customers: keep it safe.
          Passwords, sessions and links are not in it.
        </p>
        <a href="/api/archive" download class="act">Export archive</a>
      </section>
      <section class="mt-8" aria-labelledby="import">
        <h2 id="import" class="text-xl">Import an archive</h2>
        <p class="my-2 max-w-prose">
          An archive goes into an empty workshop: start one with
          <code class="font-semibold">npm start -- --empty</code>. Every file is checked first. A damaged
          archive is refused, and nothing is changed.
        </p>
        <label class="act-quiet focus-within:outline-2 focus-within:outline-sea" :aria-busy="isBusy"
          >{{ isBusy ? 'Importing…' : 'Import archive'
          }}<input
            type="file"
            accept=".zip,application/zip"
            class="sr-only"
            :disabled="isBusy"
            @change="take"
        /></label>
        <p v-if="problem" role="alert" class="mt-3 border-l-4 border-bad bg-card px-3 py-2">{{ problem }}</p>
        <p v-if="done" role="status" class="mt-3 border-l-4 border-suits bg-card px-3 py-2">
          {{ done }} <NuxtLink to="/" class="underline">Open the jobs</NuxtLink>
        </p>
      </section>
    </template>
    <p v-else class="mt-3">Only the owner of the workshop can export and import it.</p>
  </main>
</template>
