<script setup lang="ts">
import SignaturePad from 'signature_pad'
import type { SheetRow } from '../../utils/api'

/** The signature that freezes the day: a name, and, if one likes, lines drawn with a finger. */
const bench = useJob()
const who = useDeviceName()
const name = ref('')
const problem = ref('')
const busy = ref(false)
const rows = shallowRef<readonly SheetRow[]>([])
const canvas = useTemplateRef<HTMLCanvasElement>('canvas')
let pad: SignaturePad | null = null
async function load() {
  const answer = await ask<SheetRow[]>(`/api/jobs/${bench.id}/sheets`)
  if (answer.kind === 'ok') rows.value = answer.data.filter(({ kind }) => kind === 'record')
}
onMounted(() => {
  void load()
  if (canvas.value) {
    canvas.value.width = canvas.value.clientWidth
    canvas.value.height = canvas.value.clientHeight
    pad = new SignaturePad(canvas.value, { penColor: '#1C2A30' })
  }
})
onScopeDispose(() => pad?.off())
const saved = computed(() => bench.save.kind === 'saved')
async function sign() {
  busy.value = true
  problem.value = ''
  const strokes = (pad?.toData() ?? []).map(({ points }) =>
    points.slice(0, 2000).map(({ x, y }) => [Math.round(x), Math.round(y)]),
  )
  const answer = await ask<SheetRow>(
    `/api/jobs/${bench.id}/sheets`,
    asJson('POST', {
      version: bench.version,
      epoch: bench.epoch,
      who: who.value || 'Unnamed device',
      signature: { name: name.value.trim(), strokes: strokes.slice(0, 100) },
    }),
  )
  busy.value = false
  if (answer.kind !== 'ok') {
    problem.value = problemOf(answer, 'The server cannot be reached; nothing was signed.')
    return
  }
  pad?.clear()
  name.value = ''
  void load()
}
</script>

<template>
  <section class="border border-line bg-card p-3" aria-labelledby="sign">
    <h2 id="sign" class="text-lg">Sign the record</h2>
    <p class="text-soft">
      Steps, readings, what was mended and the verdict as fitted are frozen as they stand now.
    </p>
    <ul v-if="rows.length" class="mt-2" aria-label="Signed records">
      <li v-for="row in rows" :key="row.count">
        <NuxtLink
          :to="`/jobs/${bench.id}/sheets/${row.count}`"
          class="underline max-md:inline-flex max-md:min-h-11"
          >{{ row.number }}: {{ row.name }}</NuxtLink
        >
        <a :href="`/api/jobs/${bench.id}/sheets/${row.count}/pdf`" target="_blank" class="ml-2 underline"
          >PDF</a
        >
      </li>
    </ul>
    <form class="mt-2" @submit.prevent="sign">
      <label class="block"
        >Name<input
          v-model="name"
          class="entry w-full max-md:min-h-11"
          maxlength="100"
          autocomplete="name"
          data-testid="sign-name"
      /></label>
      <p class="mt-2">Signature, if you like</p>
      <canvas
        ref="canvas"
        class="h-32 w-full touch-none rounded-sm border border-edge bg-[#fffdf7]"
        aria-label="Field for a signature"
      />
      <div class="mt-2 flex gap-2">
        <button
          type="submit"
          class="act max-md:min-h-12"
          :disabled="!saved || busy || name.trim() === ''"
          data-testid="sign"
        >
          {{ busy ? 'Signing …' : 'Sign' }}
        </button>
        <button type="button" class="act-quiet max-md:min-h-12" @click="pad?.clear()">Clear the field</button>
      </div>
      <p v-if="busy" role="status" class="mt-1 flex items-center gap-2 text-soft">
        <progress class="w-24" aria-label="Signing the record" />Freezing the record …
      </p>
      <p v-if="!saved" class="text-soft">Wait until the job is saved.</p>
      <p v-if="problem" role="alert" class="text-bad">{{ problem }}</p>
    </form>
  </section>
</template>
