<script setup lang="ts">
import { ask } from '../../utils/api'
import type { CustomerRow } from '../../utils/craft'

/** A customer's legal rights: a copy of their data, and erasure. */
const props = defineProps<{ customer: CustomerRow }>()
const emit = defineEmits<{ erased: [] }>()
const isAsking = ref(false)
const typed = ref('')
const problem = ref('')
async function erase() {
  const answer = await ask(`/api/customers/${props.customer.id}`, { method: 'DELETE' })
  problem.value = problemOf(answer, 'The server cannot be reached. Nothing was erased.')
  if (answer.kind !== 'ok') return
  isAsking.value = false
  emit('erased')
}
</script>

<template>
  <section class="border-t border-line pt-4" aria-labelledby="data-care">
    <h2 id="data-care" class="text-xl">Customer’s data</h2>
    <p v-if="customer.erasedAt" class="text-soft">
      This customer was erased. Their papers stay without the name.
    </p>
    <p v-else class="mt-2 flex flex-wrap gap-2">
      <a :href="`/api/customers/${customer.id}/data`" download="customer.json" class="act-quiet"
        >Export data</a
      >
      <button type="button" class="act-quiet" @click="isAsking = true">Erase customer</button>
    </p>
    <AppDialog v-model:open="isAsking" title="Erase customer">
      <p>
        This blanks {{ customer.name }} in every job, paper and logbook, and deletes contact, registrations
        and messages. Papers stay without the name, each with a new digest. Photos stay: look through them
        yourself. It cannot be undone.
      </p>
      <p v-if="problem" role="alert" class="mt-2 text-bad">{{ problem }}</p>
      <form class="mt-3 flex flex-wrap items-end gap-2" @submit.prevent="erase">
        <label class="block grow"
          ><span class="mb-0.5 block text-xs text-soft">Type the customer’s name to confirm</span
          ><input v-model="typed" class="entry" maxlength="200" autocomplete="off"
        /></label>
        <button type="submit" class="act" :disabled="typed.trim() !== customer.name">Erase customer</button>
      </form>
    </AppDialog>
  </section>
</template>
