<script setup lang="ts">
import { withFitted } from '#core/job/proving-edits'
import type { Proving } from '#core/job/proving'
import { partKinds } from '#core/job/fields'
import type { Learnt } from '#core/proving/learnt'
import { verdictWords } from '#core/system/verdict'
import type { ShownProof } from '../../engine/prover'

/** What was really fitted, what the readings taught, the verdict of it, and the signature that freezes the day. */
const props = defineProps<{ shown: ShownProof; proving: Proving; learnt: readonly Learnt[] }>()
const bench = useJob()
const run = ref('')
const fields = partKinds.runs.fields
const lengthM = ref<number | null>(null)
const areaMm2 = ref<number | null>(null)
const numberOf = (id: string): string => {
  const found = props.shown.runs.find((one) => one.id === id)
  return found ? `${found.number}, ${found.name}` : id
}
function add() {
  const set = (name: string, value: number | null): void => {
    if (value !== null)
      bench.edit((job) => withFitted(job, `runs/${run.value}/${name}`, { value, how: 'measured' }))
  }
  set('lengthM', lengthM.value)
  set('areaMm2', areaMm2.value)
  run.value = ''
  lengthM.value = areaMm2.value = null
}
const words = (path: string, after: unknown): string => {
  const [, id, field] = path.split('/')
  const known = (after as { value?: unknown }).value
  const label = fields[field as keyof typeof fields]?.label ?? field
  return `${numberOf(id!)}: ${label} ${String(known)} ${field === 'lengthM' ? 'm' : field === 'areaMm2' ? 'mm²' : ''}`
}
const learntWords = ({ of, what, before, after, within }: Learnt): string =>
  what === 'heat'
    ? `Rise of the case: ${after.toFixed(0)} ± ${within.toFixed(0)} K, taken as ${before.toFixed(0)} K`
    : `${numberOf(of)}: ${after.toFixed(2)} ± ${within.toFixed(2)} mΩ, taken as ${before.toFixed(2)} mΩ`
</script>

<template>
  <div class="grid max-w-[64rem] gap-4 md:grid-cols-2">
    <section class="border border-line bg-card p-3" aria-labelledby="as-fitted">
      <h2 id="as-fitted" class="text-lg">The verdict as fitted</h2>
      <p
        class="mt-1 flex items-center gap-2 font-semibold"
        :class="verdictColour[shown.fitted.verdict]"
        data-testid="fitted-verdict"
      >
        <VerdictMark :verdict="shown.fitted.verdict" />{{ shown.fitted.headline }}
      </p>
      <p class="flex items-center gap-2" :class="verdictColour[shown.fitted.wiring]">
        <VerdictMark :verdict="shown.fitted.wiring" />Its wiring: {{ verdictWords[shown.fitted.wiring] }}
      </p>
      <h3 class="mt-3 font-semibold">Fitted otherwise than specified</h3>
      <ul v-if="proving.fitted.length">
        <li
          v-for="change in proving.fitted"
          :key="change.path"
          class="flex items-baseline justify-between gap-2"
        >
          {{ words(change.path, change.after)
          }}<button
            type="button"
            class="text-sm underline max-md:min-h-11"
            @click="bench.edit((job) => withFitted(job, change.path, undefined))"
          >
            As specified
          </button>
        </li>
      </ul>
      <p v-else class="text-soft">Everything as specified.</p>
      <form class="mt-2 flex flex-wrap items-end gap-2" @submit.prevent="add">
        <label class="min-w-48 flex-1"
          >Run<select v-model="run" class="entry w-full max-md:min-h-11" data-testid="fitted-run">
            <option value="">Choose a run</option>
            <option v-for="one in shown.runs" :key="one.id" :value="one.id">
              {{ one.number }}, {{ one.name }}
            </option>
          </select></label
        >
        <template v-if="run">
          <ValueEntry
            v-model="lengthM"
            class="w-24"
            :field="fields.lengthM"
            label="Length"
            empty="as specified"
          />
          <ValueEntry
            v-model="areaMm2"
            class="w-24"
            :field="fields.areaMm2"
            label="Size"
            empty="as specified"
          />
          <button type="submit" class="act max-md:min-h-11" :disabled="lengthM === null && areaMm2 === null">
            Fitted so
          </button>
        </template>
      </form>
      <template v-if="proving.mended.length">
        <h3 class="mt-3 font-semibold">Found and mended</h3>
        <ul>
          <li v-for="one in proving.mended" :key="one.when">
            {{ one.words }} <span class="text-soft">{{ one.by }}</span>
          </li>
        </ul>
      </template>
      <template v-if="learnt.length">
        <h3 class="mt-3 font-semibold">What the readings taught</h3>
        <ul class="text-sm">
          <li v-for="one in learnt" :key="one.of + one.what">{{ learntWords(one) }}</li>
        </ul>
      </template>
    </section>
    <SignRecord />
  </div>
</template>
