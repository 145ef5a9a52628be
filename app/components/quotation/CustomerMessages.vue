<script setup lang="ts">
import type { CustomerMessage } from '../../../server/repositories/customer-messages'

/** Messages that the customer wrote on their page. */
const bench = useJob()
const messages = shallowRef<readonly CustomerMessage[]>([])
onMounted(async () => {
  const answer = await ask<CustomerMessage[]>(`/api/jobs/${bench.id}/messages`)
  if (answer.kind === 'ok') messages.value = answer.data
})
</script>

<template>
  <ul v-if="messages.length" class="mt-3" aria-label="Messages from the customer">
    <li v-for="one in messages" :key="one.id" class="border-t border-line py-2">
      <p class="text-xs text-soft">{{ one.name }}, {{ ago(one.at) }}</p>
      <p class="break-words whitespace-pre-line">{{ one.words }}</p>
    </li>
  </ul>
</template>
