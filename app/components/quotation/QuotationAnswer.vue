<script setup lang="ts">
import type { IssuedContent } from '#core/papers/issued'
import { offersOf } from '#core/papers/offers'
import { formatMoney } from '#core/quotation/money'
import { totalsOf } from '#core/quotation/totals'
import type { SheetRow } from '../../utils/api'

/** The customer's answer to a quotation: who, yes or no, which answer and options. It is entered once. */
const props = defineProps<{ count: number }>()
const emit = defineEmits<{ done: [] }>()
const bench = useJob()
const who = useDeviceName()
const address = computed(() => `/api/jobs/${bench.id}/sheets/${props.count}`)
const sheet = shallowRef<IssuedContent | null>(null)
const problem = ref('')
const busy = ref(false)
const name = ref(bench.document?.job.customer ?? '')
const note = ref('')
const options = ref<string[]>([])
onMounted(async () => {
  const answer = await ask<SheetRow & { sheet: IssuedContent }>(address.value)
  problem.value = problemOf(answer, 'The server cannot be reached.')
  if (answer.kind === 'ok') sheet.value = answer.data.sheet
})
const quotation = computed(() => (sheet.value?.format === 'jovial-anchor/quotation' ? sheet.value : null))
const offers = computed(() => (quotation.value ? offersOf(quotation.value) : []))
const alternative = ref('')
const offer = computed(() => offers.value.find(({ id }) => id === alternative.value))
const offered = computed(() => offer.value?.lines.filter(({ isOptional }) => isOptional) ?? [])
watch(alternative, () => {
  options.value = []
})
const money = (amount: number): string => {
  if (!quotation.value) return ''
  const { currency, locale } = quotation.value.inputs.letterhead
  return formatMoney(amount, currency, locale)
}
const total = computed(() => {
  if (!quotation.value || !offer.value) return null
  const { result, inputs } = quotation.value
  const { discountPercent, depositPercent } = result
  const { lines } = offer.value
  const { currency } = inputs.letterhead
  return totalsOf(lines, { discountPercent, depositPercent, currency, options: options.value }).total
})
async function enter(answer: 'accepted' | 'declined'): Promise<void> {
  busy.value = true
  const answered = await ask(
    `${address.value}/answer`,
    asJson('POST', {
      who: signedAs(who.value),
      answer,
      name: name.value,
      note: note.value,
      options: answer === 'accepted' ? options.value : [],
      alternative: answer === 'accepted' ? alternative.value : '',
    }),
  )
  busy.value = false
  problem.value = problemOf(answered, 'The server cannot be reached. Nothing was saved.')
  if (answered.kind === 'ok') emit('done')
}
</script>

<template>
  <form class="mt-2 grid gap-2 border-l-4 border-sea pl-3" @submit.prevent>
    <p v-if="problem" role="alert" class="text-bad">{{ problem }}</p>
    <label class="block"
      ><span class="mb-0.5 block text-xs text-soft">Name of the customer</span
      ><input v-model="name" class="entry" maxlength="100" autocomplete="off"
    /></label>
    <fieldset v-if="offers.length > 1">
      <legend class="text-xs text-soft">What they take</legend>
      <label v-for="one in offers" :key="one.id" class="flex min-h-9 items-center gap-2 max-md:min-h-11"
        ><input v-model="alternative" type="radio" name="alternative" class="size-5" :value="one.id" />{{
          one.name
        }}
        <span class="text-soft">{{ money(one.totals.total) }}</span></label
      >
    </fieldset>
    <fieldset v-if="offered.length">
      <legend class="text-xs text-soft">Options they take</legend>
      <label v-for="line in offered" :key="line.id" class="flex min-h-9 items-center gap-2 max-md:min-h-11"
        ><input v-model="options" type="checkbox" class="size-5" :value="line.id" />{{ line.name }}
        <span class="text-soft">{{ money(line.net ?? 0) }}</span></label
      >
    </fieldset>
    <label class="block"
      ><span class="mb-0.5 block text-xs text-soft">Note or reason</span
      ><input v-model="note" class="entry" maxlength="1000" autocomplete="off"
    /></label>
    <p v-if="total !== null">
      Total with these options: <strong>{{ money(total) }}</strong>
    </p>
    <p class="flex flex-wrap gap-2">
      <button
        type="button"
        class="act"
        :disabled="busy || !name.trim() || !quotation"
        @click="enter('accepted')"
      >
        Mark as accepted</button
      ><button
        type="button"
        class="act-quiet"
        :disabled="busy || !name.trim() || !quotation"
        @click="enter('declined')"
      >
        Mark as declined
      </button>
    </p>
  </form>
</template>
