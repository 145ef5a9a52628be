<script setup lang="ts">
/** Chooses whether the next start serves a shop. */
const mode = ref<{ shop: boolean; next: boolean } | null>(null)
const problem = ref('')
onMounted(async () => {
  const answer = await ask<{ shop: boolean; next: boolean }>('/api/mode')
  if (answer.kind === 'ok') mode.value = answer.data
})
async function set(shop: boolean) {
  const answer = await ask<{ shop: boolean; next: boolean }>('/api/mode', asJson('PUT', { shop }))
  problem.value = problemOf(answer, 'The server cannot be reached. Nothing was changed.')
  if (answer.kind === 'ok') mode.value = answer.data
}
</script>

<template>
  <div v-if="mode">
    <p v-if="problem" role="alert" class="mb-2 text-bad">{{ problem }}</p>
    <p v-if="mode.next !== mode.shop" role="status" class="mb-2 font-semibold">
      {{ mode.next ? 'The next start serves your network.' : 'The next start answers only on this machine.' }}
    </p>
    <button v-if="mode.next" type="button" class="act-quiet" @click="set(false)">
      Answer only on this machine</button
    ><button v-else type="button" class="act" @click="set(true)">
      Serve the network from the next start
    </button>
  </div>
</template>
