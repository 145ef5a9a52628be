<script setup lang="ts">
/** The people who come back to this device with a PIN: one is chosen, and types it. */
const emit = defineEmits<{ entered: [] }>()
const account = useAccount()
const chosen = ref('')
const pin = ref('')
const problem = ref('')
const isBusy = ref(false)
const entry = useTemplateRef('entry')

async function choose(id: string): Promise<void> {
  chosen.value = id
  pin.value = ''
  problem.value = ''
  await nextTick()
  entry.value?.[0]?.focus()
}
async function enter(): Promise<void> {
  isBusy.value = true
  const answer = await ask('/api/session/pin', asJson('POST', { person: chosen.value, pin: pin.value }))
  isBusy.value = false
  problem.value = problemOf(answer, 'The server cannot be reached.')
  pin.value = ''
  if (answer.kind === 'ok') emit('entered')
  else await account.loadPinPeople()
}
</script>

<template>
  <section aria-labelledby="pin-title" class="mt-4">
    <h2 id="pin-title" class="text-xl">Who are you?</h2>
    <p v-if="problem" role="alert" class="mt-2 border-l-4 border-bad bg-card px-3 py-2">{{ problem }}</p>
    <ul class="mt-2 grid gap-2">
      <li v-for="{ id, name } in account.pinPeople" :key="id">
        <button
          type="button"
          class="flex min-h-11 w-full items-center justify-between border border-line bg-card px-3 text-left font-semibold hover:border-sea"
          :aria-expanded="chosen === id"
          @click="choose(id)"
        >
          {{ name }}<span v-if="id === account.owner" class="text-xs font-normal text-soft">Signed in</span>
        </button>
        <form
          v-if="chosen === id"
          class="flex items-end gap-2 border border-t-0 border-line bg-card p-3"
          @submit.prevent="enter"
        >
          <label class="grow"
            ><span class="mb-1 block font-semibold">PIN</span
            ><input
              ref="entry"
              v-model="pin"
              type="password"
              inputmode="numeric"
              autocomplete="off"
              class="entry"
              maxlength="8"
              required /></label
          ><button type="submit" class="act" :disabled="isBusy">Enter</button>
        </form>
      </li>
    </ul>
  </section>
</template>
