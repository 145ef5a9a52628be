<script setup lang="ts">
import {
  quotationGroups,
  withAddedLine,
  withLine,
  withoutAddedLine,
  withoutAlternative,
  withTerms,
  type AddedLine,
  type LineChange,
  type QuotationDraft,
} from '#core/job/quotation'
import { linesByGroup, quotationLines, unpricedNames, unpricedPartOf } from '#core/quotation/lines'
import { termsOf } from '#core/quotation/terms'
import { totalsOf } from '#core/quotation/totals'
import { resolveRules } from '#core/rules/rules'

/** The price of the chosen answer: lines, options, tax and terms; and the quotations that were issued. */
const { bench, problem, ready } = useJobPage('Quotation')
const account = useAccount()
const shop = useShop()
const { letterhead, problem: letterheadProblem } = useLetterhead()

const draft = computed((): QuotationDraft => bench.document?.quotation ?? {})
const specified = computed(() => bench.document?.specified)
const labourPerH = computed(() => resolveRules(shop.shop.rules, bench.document?.rules ?? {}).labourPerH)
const lines = computed(() => {
  if (!bench.document) return []
  return quotationLines(specified.value, draft.value, letterhead.value, labourPerH.value)
})
const groups = computed(() => linesByGroup(lines.value))
const totals = computed(() =>
  totalsOf(lines.value, {
    ...termsOf(draft.value, letterhead.value),
    currency: letterhead.value.currency,
  }),
)
/** Lines of the chosen answer, then of its alternatives. */
const offeredLines = computed(() => [
  ...lines.value,
  ...Object.values(draft.value.alternatives ?? {}).flatMap((answer) =>
    quotationLines(answer, draft.value, letterhead.value, labourPerH.value),
  ),
])
/** Lines that only an alternative has, and whose price was typed or is missing. */
const otherLines = computed(() => {
  const shown = new Set(lines.value.map(({ id }) => id))
  return offeredLines.value.filter(({ id, price }) => {
    if (shown.has(id)) return false
    shown.add(id)
    return price === null || draft.value.lines?.[id] !== undefined
  })
})
/** Every line needs its price, an optional one too. */
const unpriced = computed(() => [...new Set(unpricedNames(offeredLines.value))])

const change = (next: (draft: QuotationDraft) => QuotationDraft): void => {
  bench.edit((job) => ({ ...job, quotation: next(job.quotation ?? {}) }))
}
const setLine = (id: string, settings: LineChange): void => {
  change((before) => withLine(before, id, settings))
}
const add = (line: AddedLine): void => {
  change((before) => withAddedLine(before, crypto.randomUUID(), line))
}
const remove = (id: string): void => {
  change((before) => withoutAddedLine(before, id))
}
const removeAlternative = (id: string): void => {
  change((before) => withoutAlternative(before, id))
}
const setTerms = (terms: Parameters<typeof withTerms>[1]): void => {
  change((before) => withTerms(before, terms))
}
const message = computed({
  get: () => draft.value.message ?? '',
  set: (text) => {
    setTerms({ message: text || undefined })
  },
})

const { rows, isIssuing: busy, isSaved, hintFor, load: loadIssued, issue: issueNext } = useIssued('quotation')
watch(ready, (is) => is && loadIssued(), { immediate: true })

const issueProblem = ref('')
async function issue(): Promise<void> {
  const answer = await issueNext({ kind: 'quotation' })
  issueProblem.value = problemOf(answer, 'The server cannot be reached. Nothing was issued.')
}
const lack = computed(() => {
  if (!specified.value) return 'Choose an answer under Specify first.'
  return unpriced.value.length > 0 ? 'Enter the missing prices first.' : ''
})
const hint = computed(() =>
  hintFor(lack.value, 'An issued quotation does not change. A newer one replaces it.'),
)
const canIssue = computed(() => !busy.value && isSaved.value && account.mayDecide && lack.value === '')
</script>

<template>
  <JobShell
    title="Quotation"
    about="The price of the chosen answer, for the customer."
    :problem="problem"
    :ready="ready"
  >
    <div class="grid items-start gap-4 p-3 md:p-4 lg:grid-cols-[minmax(0,1fr)_22rem]">
      <section aria-label="Lines" class="min-w-0 border border-line bg-card p-3">
        <p v-if="letterheadProblem" role="alert" class="text-bad">{{ letterheadProblem }}</p>
        <p v-if="!specified" class="mb-2">
          This job has no chosen answer yet.
          <NuxtLink :to="`/jobs/${bench.id}/specify`" class="underline">Choose an answer</NuxtLink>
        </p>
        <p
          v-if="unpriced.length"
          role="status"
          class="mb-2 border-l-4 border-bad pl-2"
          data-testid="missing-prices"
        >
          {{ unpriced.length === 1 ? '1 price is missing' : `${unpriced.length} prices are missing` }}:
          {{ unpriced.join(', ') }}.
        </p>
        <section v-for="{ group, lines: ofGroup } in groups" :key="group" class="mb-3">
          <h2 class="text-lg">{{ quotationGroups[group] }}</h2>
          <ul :aria-label="quotationGroups[group]">
            <QuotationLine
              v-for="line in ofGroup"
              :key="line.id"
              :line="line"
              :settings="draft.lines?.[line.id]"
              :letterhead="letterhead"
              :is-added="draft.added?.[line.id] !== undefined"
              :unpriced="specified && unpricedPartOf(specified, line.id)"
              @set="setLine(line.id, $event)"
              @remove="remove(line.id)"
            />
          </ul>
        </section>
        <AddLine @add="add" />
        <section v-if="otherLines.length" class="mt-3">
          <h2 class="text-lg">Only in an alternative</h2>
          <ul aria-label="Only in an alternative">
            <QuotationLine
              v-for="line in otherLines"
              :key="line.id"
              :line="line"
              :settings="draft.lines?.[line.id]"
              :letterhead="letterhead"
              :is-added="false"
              @set="setLine(line.id, $event)"
            />
          </ul>
        </section>
        <AlternativeList
          v-if="specified"
          :draft="draft"
          :letterhead="letterhead"
          :labour-per-h="labourPerH"
          @remove="removeAlternative"
        />
      </section>

      <aside class="grid gap-4 max-lg:order-first lg:sticky lg:top-4" aria-label="Total and terms">
        <section class="border border-line bg-card p-3" aria-labelledby="sum-title">
          <h2 id="sum-title" class="mb-2 text-lg">Total</h2>
          <QuotationSums :totals="totals" :letterhead="letterhead" />
          <p class="mt-3">
            <button type="button" class="act" :disabled="!canIssue" @click="issue">
              {{ busy ? 'Issuing …' : 'Issue quotation' }}
            </button>
          </p>
          <p class="mt-1 text-xs text-soft">{{ hint }}</p>
          <p v-if="issueProblem" role="alert" class="mt-1 text-bad">{{ issueProblem }}</p>
          <QuotationList :rows="rows" @changed="loadIssued" />
        </section>
        <section class="grid gap-2 border border-line bg-card p-3" aria-labelledby="terms-title">
          <h2 id="terms-title" class="text-lg">Terms of this quotation</h2>
          <div class="grid grid-cols-3 gap-2">
            <NumberEntry
              label="Discount"
              unit="%"
              :model-value="draft.discountPercent"
              :usual="0"
              :most="100"
              @update:model-value="setTerms({ discountPercent: $event })"
            />
            <NumberEntry
              label="Deposit"
              unit="%"
              :model-value="draft.depositPercent"
              :usual="letterhead.depositPercent"
              :most="100"
              @update:model-value="setTerms({ depositPercent: $event })"
            />
            <NumberEntry
              label="Valid for"
              unit="days"
              whole
              :least="1"
              :model-value="draft.validDays"
              :usual="letterhead.validDays"
              :most="365"
              @update:model-value="setTerms({ validDays: $event })"
            />
          </div>
          <label class="block"
            ><span class="mb-0.5 block text-xs text-soft">Message to the customer</span
            ><textarea v-model="message" class="entry min-h-24" maxlength="5000" />
          </label>
          <p>
            <NuxtLink to="/letterhead" class="underline"
              >Letterhead, tax and margins of the workshop</NuxtLink
            >
          </p>
        </section>
        <CustomerLink />
      </aside>
    </div>
  </JobShell>
</template>
