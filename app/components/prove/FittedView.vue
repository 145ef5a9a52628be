<script setup lang="ts">
import { withFitted } from '#core/job/proving-edits'
import type { Proving } from '#core/job/proving'
import { partKinds } from '#core/job/fields'
import type { Learnt } from '#core/diagnosis/learnt'
import { verdictWords } from '#core/system/verdict'
import type { ShownProof, Taught } from '../../engine/prover'

/** The parts as fitted, the learnt values, the verdict as fitted, and the signature. */
const props = defineProps<{ shown: ShownProof; proving: Proving; taught: Taught | null }>()
const bench = useJob()
/** The path of the run or the fuse that was fitted otherwise. */
const chosen = ref('')
const { runs, fittings } = partKinds
const fields = { lengthM: runs.fields.lengthM, areaMm2: runs.fields.areaMm2, ratedA: fittings.fields.ratedA }
const labels = { lengthM: 'Length', areaMm2: 'Size', ratedA: 'Rating' } as const
const units = { lengthM: 'm', areaMm2: 'mm²', ratedA: 'A' } as const
type Name = keyof typeof fields
const values = ref<Partial<Record<Name, number | null>>>({})
const asked = computed<readonly Name[]>(() =>
  chosen.value.startsWith('fittings/') ? ['ratedA'] : ['lengthM', 'areaMm2'],
)
const isSet = computed(() => asked.value.some((name) => values.value[name] != null))
watch(chosen, () => {
  values.value = {}
})
const nameOf = (id: string): string => {
  const found = [...props.shown.runs, ...props.shown.fuses].find((one) => one.id === id)
  return found ? `${found.number}, ${found.name}` : id
}
function add() {
  for (const name of asked.value) {
    const value = values.value[name]
    if (value != null)
      bench.edit((job) => withFitted(job, `${chosen.value}/${name}`, { value, how: 'measured' }))
  }
  chosen.value = ''
}
const words = (path: string, after: unknown): string => {
  const [, id, field] = path.split('/')
  const known = (after as { value?: unknown }).value
  return `${nameOf(id!)}: ${labels[field as Name].toLowerCase()} ${String(known)} ${units[field as Name]}`
}
const learntWords = ({ of, what, before, after, within }: Learnt): string =>
  what === 'heat'
    ? `Rise of the case: ${after.toFixed(0)} ± ${within.toFixed(0)} K, assumed ${before.toFixed(0)} K`
    : `${nameOf(of)}: ${after.toFixed(2)} ± ${within.toFixed(2)} mΩ, assumed ${before.toFixed(2)} mΩ`
</script>

<template>
  <div class="grid max-w-[64rem] gap-4 md:grid-cols-2">
    <section class="border border-line bg-card p-3" aria-labelledby="as-fitted">
      <h2 id="as-fitted" class="text-lg">Verdict as fitted</h2>
      <template v-if="taught">
        <p
          class="mt-1 flex items-center gap-2 font-semibold"
          :class="verdictColour[taught.verdict]"
          data-testid="fitted-verdict"
        >
          <VerdictMark :verdict="taught.verdict" />{{ taught.headline }}
        </p>
        <p class="flex items-center gap-2" :class="verdictColour[taught.wiring]">
          <VerdictMark :verdict="taught.wiring" />Wiring: {{ verdictWords[taught.wiring] }}
        </p>
      </template>
      <p v-else class="text-soft" aria-busy="true">Checking the job as fitted…</p>
      <h3 class="mt-3 font-semibold">Differences from the specification</h3>
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
            Undo difference
          </button>
        </li>
      </ul>
      <p v-else class="text-soft">None. Everything is as specified.</p>
      <form class="mt-2 flex flex-wrap items-end gap-2" @submit.prevent="add">
        <label class="min-w-48 flex-1"
          >Run or fuse<select v-model="chosen" class="entry w-full max-md:min-h-11" data-testid="fitted-part">
            <option value="">Choose a run or a fuse</option>
            <option v-for="one in shown.runs" :key="one.id" :value="`runs/${one.id}`">
              {{ one.number }}, {{ one.name }}
            </option>
            <option v-for="one in shown.fuses" :key="one.id" :value="`fittings/${one.id}`">
              {{ one.number }}, {{ one.name }}
            </option>
          </select></label
        >
        <template v-if="chosen">
          <ValueEntry
            v-for="name in asked"
            :key="name"
            :model-value="values[name] ?? null"
            class="w-28"
            :field="fields[name]"
            :label="labels[name]"
            empty="as specified"
            @update:model-value="values[name] = $event as number | null"
          />
          <button type="submit" class="act max-md:min-h-11" :disabled="!isSet">Add difference</button>
        </template>
      </form>
      <template v-if="proving.mended.length">
        <h3 class="mt-3 font-semibold">Found and repaired</h3>
        <ul>
          <li v-for="one in proving.mended" :key="one.when">
            {{ one.words }} <span class="text-soft">{{ one.by }}</span>
          </li>
        </ul>
      </template>
      <template v-if="taught?.learnt.length">
        <h3 class="mt-3 font-semibold">Learnt from the readings</h3>
        <ul class="text-sm">
          <li v-for="one in taught.learnt" :key="one.of + one.what">{{ learntWords(one) }}</li>
        </ul>
      </template>
    </section>
    <SignRecord />
  </div>
</template>
