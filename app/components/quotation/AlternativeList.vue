<script setup lang="ts">
import type { QuotationDraft } from '#core/job/quotation'
import { mostAlternatives } from '#core/job/quotation'
import { quotationLines, unpricedNames } from '#core/quotation/lines'
import { formatMoney } from '#core/quotation/money'
import { termsOf, type Letterhead } from '#core/quotation/terms'
import { totalsOf } from '#core/quotation/totals'

/** Other answers that the customer can take: each with its total. */
const props = defineProps<{ draft: QuotationDraft; letterhead: Letterhead; labourPerH: number }>()
const emit = defineEmits<{ remove: [id: string] }>()
const bench = useJob()
const listed = computed(() =>
  Object.entries(props.draft.alternatives ?? {}).map(([id, answer]) => {
    const lines = quotationLines(answer, props.draft, props.letterhead, props.labourPerH)
    const { currency, locale } = props.letterhead
    const { total } = totalsOf(lines, { ...termsOf(props.draft, props.letterhead), currency })
    return {
      id,
      name: answer.name,
      total: formatMoney(total, currency, locale),
      unpriced: unpricedNames(lines),
    }
  }),
)
</script>

<template>
  <section class="mt-3 border-t border-line pt-2" aria-labelledby="alternatives-title">
    <h2 id="alternatives-title" class="text-lg">Alternatives</h2>
    <p v-if="listed.length < mostAlternatives" class="text-soft">
      The customer can take another answer instead. Add up to {{ mostAlternatives }} under
      <NuxtLink :to="`/jobs/${bench.id}/specify`" class="underline">Specify</NuxtLink>.
    </p>
    <ul v-if="listed.length" aria-label="Alternatives">
      <li
        v-for="{ id, name, total, unpriced } in listed"
        :key="id"
        class="grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-3 border-t border-line py-2 first:border-t-0"
      >
        <p class="font-semibold">{{ name }}</p>
        <p class="text-right font-semibold">{{ total }}</p>
        <p v-if="unpriced.length" class="col-span-2 text-bad">Without a price: {{ unpriced.join(', ') }}.</p>
        <p class="col-span-2">
          <button type="button" class="min-h-8 text-xs underline max-md:min-h-11" @click="emit('remove', id)">
            Remove alternative
          </button>
        </p>
      </li>
    </ul>
  </section>
</template>
