<script setup lang="ts">
import { inSentence } from '#core/units/format'
import type { FieldPath } from '#core/job/document'

/** Next measurements: most verdicts settled first. */
const judging = useJudging()
defineEmits<{ measure: [path: FieldPath] }>()
const all = ref(false)
const list = computed(() => judging.found?.measureNext ?? [])
const shown = computed(() => (all.value ? list.value : list.value.slice(0, 6)))
const effect = (settles: number, bearsOn: number) =>
  settles > 0 ? `settles ${settles} of ${bearsOn}` : `affects ${bearsOn}`
</script>

<template>
  <section aria-labelledby="measure-next" class="border border-line bg-card p-3">
    <h3 id="measure-next" class="text-lg">Next measurements</h3>
    <ol v-if="list.length" class="mt-1" data-testid="measure-next">
      <li
        v-for="m in shown"
        :key="m.path"
        class="grid grid-cols-[1fr_auto] items-baseline gap-x-3 border-line py-1 not-first:border-t"
      >
        <button type="button" class="text-left max-md:min-h-11" @click="$emit('measure', m.path)">
          <span class="font-semibold underline">{{ m.part }}: {{ inSentence(m.label) }}</span
          >.
          <span class="text-soft">{{ m.how }}</span>
        </button>
        <span class="text-xs text-measure">{{ effect(m.settles.length, m.bearsOn.length) }}</span>
      </li>
    </ol>
    <p v-else class="mt-1 text-soft">Nothing. No missing value would change a verdict.</p>
    <button
      v-if="list.length > 6"
      type="button"
      class="mt-1 min-h-8 underline max-md:min-h-11"
      @click="all = !all"
    >
      {{ all ? 'Fewer' : `All ${list.length}` }}
    </button>
  </section>
</template>
