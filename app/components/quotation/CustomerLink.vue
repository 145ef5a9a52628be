<script setup lang="ts">
import type { CustomerLinkRow } from '../../../server/repositories/customer-links'

/** The link with which the customer sees the issued papers and answers the quotation. */
const bench = useJob()
const account = useAccount()
const who = useDeviceName()
const link = shallowRef<CustomerLinkRow | null>(null)
const made = ref<{ token: string; days: number } | null>(null)
const problem = ref('')
const unreachable = 'The server cannot be reached. Nothing was changed.'
const path = computed(() => `/api/jobs/${bench.id}/customer-link`)
const address = computed(() => `${window.location.origin}/customer#${made.value?.token ?? ''}`)
async function load(): Promise<void> {
  const answer = await ask<{ link: CustomerLinkRow | null }>(path.value)
  if (answer.kind === 'ok') link.value = answer.data.link
}
onMounted(load)
async function make(): Promise<void> {
  const answer = await ask<{ token: string; days: number }>(
    path.value,
    asJson('POST', { who: signedAs(who.value) }),
  )
  problem.value = problemOf(answer, unreachable)
  if (answer.kind === 'ok') made.value = answer.data
  await load()
}
async function end(): Promise<void> {
  problem.value = problemOf(await ask(path.value, { method: 'DELETE' }), unreachable)
  made.value = null
  await load()
}
</script>

<template>
  <section class="border border-line bg-card p-3" aria-labelledby="link-title">
    <h2 id="link-title" class="text-lg">Customer’s page</h2>
    <p class="text-xs text-soft">
      The customer reads the newest papers there without signing in, and accepts or declines the quotation.
    </p>
    <p v-if="problem" role="alert" class="mt-1 text-bad">{{ problem }}</p>
    <p v-if="link" class="mt-1" data-testid="link-state">
      Made {{ ago(link.createdAt) }} by {{ link.createdBy }}.
      {{ link.openedAt ? `Opened ${link.openings} ×, last ${ago(link.openedAt)}.` : 'Not opened yet.' }}
    </p>
    <div v-if="made" class="mt-2">
      <QrCode v-if="account.isShop" :address="address" label="Code of the customer’s page" />
      <p v-else>In one-machine mode only this laptop reaches the page.</p>
      <p>It works for {{ made.days }} days.</p>
      <ShownOnce :text="address" what="link" @close="made = null" />
    </div>
    <p v-if="link" class="mt-2 text-xs text-soft">
      A new link ends this one, also behind the codes on settings cards.
    </p>
    <p class="mt-2 flex flex-wrap gap-2">
      <button type="button" class="act-quiet" :disabled="!account.mayDecide" @click="make">
        {{ link ? 'Make new link' : 'Make link' }}</button><button
        v-if="link"
        type="button"
        class="act-quiet"
        :disabled="!account.mayDecide"
        @click="end"
      >
        End link
      </button>
    </p>
    <CustomerMessages />
  </section>
</template>
