<script setup lang="ts">
import type { UnpricedPart } from '#core/quotation/lines'
import type { ShelfPart } from '#core/shelf/kinds'

/** A price that was typed for a part without one on the shelf: it can be saved there for the next job. */
const props = defineProps<{ part: UnpricedPart; price: number; words: string }>()
const account = useAccount()
const who = useDeviceName()
const problem = ref('')
const isSaved = ref(false)
const unreachable = 'The server cannot be reached. Nothing was saved.'
watch(
  () => props.price,
  () => {
    isSaved.value = false
  },
)
async function save(): Promise<void> {
  const path = `/api/shelf/${props.part.kind}/parts/${encodeURIComponent(props.part.code)}`
  const there = await ask<readonly ShelfPart[]>(path)
  problem.value = problemOf(there, unreachable)
  const [newest] = there.kind === 'ok' ? there.data : []
  if (!newest) return
  const { version, name, maker, values } = newest
  const saved = await ask(
    path,
    asJson('PUT', {
      version,
      who: signedAs(who.value),
      name,
      maker,
      values: { ...values, price: props.price },
    }),
  )
  problem.value = problemOf(saved, unreachable)
  isSaved.value = saved.kind === 'ok'
}
</script>

<template>
  <p
    v-if="account.mayDecide"
    class="flex flex-wrap items-center gap-2 text-xs text-soft max-md:col-span-2 md:col-span-6"
  >
    <template v-if="isSaved">{{ words }} is saved on the shelf.</template>
    <template v-else
      >The shelf has no price for {{ part.code }}.
      <button type="button" class="underline max-md:min-h-11" @click="save">
        Save {{ words }} to the shelf
      </button></template
    ><span v-if="problem" role="alert" class="text-bad">{{ problem }}</span>
  </p>
</template>
