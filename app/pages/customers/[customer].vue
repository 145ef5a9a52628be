<script setup lang="ts">
import { crafts } from '#core/job/document'
import { paperKinds } from '#core/papers/kinds'
import { asJson, ask, read } from '../../utils/api'
import { shownDay, type WholeCustomer } from '../../utils/craft'

const route = useRoute()
const account = useAccount()
const device = useDeviceName()
const whole = shallowRef<WholeCustomer | null>(null)
const problem = ref('')
const isEditing = ref(false)
useHead({ title: () => `${whole.value?.customer.name ?? 'Customer'} · Jovial Anchor` })
useKeys(shopKeys)
const path = () => `/api/customers/${String(route.params.customer)}`
async function load() {
  const answer = await read<WholeCustomer>(path())
  problem.value = problemOf(answer, 'The server cannot be reached.')
  if (answer.kind === 'ok') whole.value = answer.data
}
onMounted(load)
async function save(entry: { name: string; contact: string; notes: string }) {
  const answer = await ask(path(), asJson('PUT', { who: signedAs(device.value), ...entry }))
  problem.value = problemOf(answer, 'The server cannot be reached. Nothing was saved.')
  if (answer.kind !== 'ok') return
  isEditing.value = false
  await load()
}
</script>

<template>
  <main class="mx-auto max-w-6xl p-4 md:px-8 md:py-7">
    <p v-if="problem" role="alert" class="mb-3 border-l-4 border-bad bg-card px-3 py-2">{{ problem }}</p>
    <template v-if="whole">
      <header class="mb-5 flex flex-wrap items-end gap-x-6 gap-y-3 border-b border-line pb-4">
        <div class="mr-auto min-w-0">
          <p class="text-soft"><NuxtLink to="/customers" class="underline">Customers</NuxtLink></p>
          <h1 class="text-3xl break-words">{{ whole.customer.name }}</h1>
          <p class="text-soft">{{ whole.customer.contact || 'No contact entered' }}</p>
          <p v-if="whole.customer.notes" class="mt-1 max-w-prose whitespace-pre-line">
            {{ whole.customer.notes }}
          </p>
        </div>
        <button
          v-if="account.mayDecide && !whole.customer.erasedAt"
          type="button"
          class="act-quiet"
          @click="isEditing = true"
        >
          Edit customer
        </button>
      </header>
      <div class="grid gap-8 md:grid-cols-2">
        <section aria-labelledby="their-craft">
          <h2 id="their-craft" class="mb-2 text-xl">Craft</h2>
          <ul v-if="whole.crafts.length" class="border-y border-line bg-card" aria-label="Craft">
            <li v-for="one in whole.crafts" :key="one.id" class="border-line px-3 py-2 not-first:border-t">
              <NuxtLink :to="`/craft/${one.id}`" class="font-semibold underline">{{
                one.name || 'Unnamed craft'
              }}</NuxtLink>
              <p class="text-xs text-soft">
                {{ [one.kind && crafts[one.kind], one.registration, one.type].filter(Boolean).join(' · ') }}
              </p>
            </li>
          </ul>
          <p v-else class="border-y border-line bg-card px-3 py-4 text-center text-soft">No craft.</p>
        </section>
        <section aria-labelledby="their-papers">
          <h2 id="their-papers" class="mb-2 text-xl">Papers</h2>
          <ul v-if="whole.papers.length" class="border-y border-line bg-card" aria-label="Papers">
            <li
              v-for="paper in whole.papers"
              :key="`${paper.job} ${paper.count}`"
              class="border-line px-3 py-2 not-first:border-t"
            >
              <NuxtLink :to="`/jobs/${paper.job}/sheets/${paper.count}`" class="font-semibold underline"
                >{{ paperKinds[paper.kind] }} {{ paper.number }}</NuxtLink
              >
              <p class="text-xs text-soft">{{ paper.name }} · {{ shownDay(paper.issuedAt) }}</p>
            </li>
          </ul>
          <p v-else class="border-y border-line bg-card px-3 py-4 text-center text-soft">No papers yet.</p>
        </section>
      </div>
      <CustomerDataCare v-if="account.mayErase" :customer="whole.customer" class="mt-8" @erased="load" />
      <AppDialog v-model:open="isEditing" title="Edit customer">
        <CustomerForm :customer="whole.customer" button="Save customer" @save="save" />
      </AppDialog>
    </template>
    <p v-else-if="!problem" class="text-soft" aria-busy="true">Loading the customer…</p>
  </main>
</template>
