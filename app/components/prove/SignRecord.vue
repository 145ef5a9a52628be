<script setup lang="ts">
import SignaturePad from 'signature_pad'

/** The signature that freezes the day: a name, and, if one likes, lines drawn with a finger. */
const bench = useJob()
const account = useAccount()
const { rows, isIssuing: busy, isSaved: saved, load, issue } = useIssued('record')
const name = ref('')
const problem = ref('')
/** Missing items of a full proof, from the server's last answer; a reason is required then. */
const gaps = ref<readonly string[]>([])
const reason = ref('')
const canvas = useTemplateRef<HTMLCanvasElement>('canvas')
let pad: SignaturePad | null = null
onMounted(() => {
  void load()
  if (canvas.value) {
    canvas.value.width = canvas.value.clientWidth
    canvas.value.height = canvas.value.clientHeight
    pad = new SignaturePad(canvas.value, { penColor: '#1C2A30' })
  }
})
onScopeDispose(() => pad?.off())
async function sign() {
  problem.value = ''
  const strokes = (pad?.toData() ?? []).map(({ points }) =>
    points.slice(0, 2000).map(({ x, y }) => [Math.round(x), Math.round(y)]),
  )
  const answer = await issue({
    signature: {
      name: name.value.trim(),
      strokes: strokes.slice(0, 100),
      ...(gaps.value.length > 0 && reason.value.trim() ? { reason: reason.value.trim() } : {}),
    },
  })
  if (answer.kind === 'refused' && answer.refused.gaps) {
    gaps.value = answer.refused.gaps
    await nextTick()
    document.getElementById('sign-reason')?.focus()
    return
  }
  if (answer.kind !== 'ok') {
    problem.value = problemOf(answer, 'The server cannot be reached; nothing was signed.')
    return
  }
  pad?.clear()
  name.value = ''
  reason.value = ''
  gaps.value = []
}
</script>

<template>
  <section class="border border-line bg-card p-3" aria-labelledby="sign">
    <h2 id="sign" class="text-lg">Sign the record</h2>
    <p class="text-soft">
      Signing freezes the steps, readings, repairs and the verdict as fitted. Missing items are listed before
      you sign.
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
      <p class="mt-2">Signature (optional)</p>
      <canvas
        ref="canvas"
        class="h-32 w-full touch-none rounded-sm border border-edge bg-[#fffdf7]"
        aria-label="Signature"
      />
      <div v-if="gaps.length" role="alert" class="mt-2 border-l-4 border-changed pl-3">
        <p class="font-semibold">Missing before signing</p>
        <ul class="list-disc pl-5">
          <li v-for="gap in gaps" :key="gap">{{ gap }}</li>
        </ul>
        <label class="mt-2 block"
          >Reason for signing anyway<textarea
            id="sign-reason"
            v-model="reason"
            class="entry w-full"
            rows="2"
            maxlength="500"
            data-testid="sign-reason"
          />
        </label>
        <p class="text-soft">The record prints this list and your reason.</p>
      </div>
      <div class="mt-2 flex gap-2">
        <button
          type="submit"
          class="act max-md:min-h-12"
          :disabled="
            !account.mayDecide ||
            !saved ||
            busy ||
            name.trim() === '' ||
            (gaps.length > 0 && reason.trim() === '')
          "
          data-testid="sign"
        >
          {{ busy ? 'Signing…' : gaps.length > 0 ? 'Sign with this reason' : 'Sign' }}
        </button>
        <button type="button" class="act-quiet max-md:min-h-12" @click="pad?.clear()">Clear signature</button>
      </div>
      <p v-if="busy" role="status" class="mt-1 flex items-center gap-2 text-soft">
        <progress class="w-24" aria-label="Signing the record" />Signing the record…
      </p>
      <p v-if="!account.mayDecide" class="text-soft">{{ needsInstaller }}</p>
      <p v-else-if="!saved" class="text-soft">Wait until the job is saved.</p>
      <p v-if="problem" role="alert" class="text-bad">{{ problem }}</p>
    </form>
  </section>
</template>
