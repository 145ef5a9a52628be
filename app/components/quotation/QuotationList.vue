<script setup lang="ts">
import { quotationStates, stateOfQuotation } from '#core/quotation/state'
import type { SheetRow } from '../../utils/api'

/** Issued quotations of the job, newest first, and the customer's answers. */
const props = defineProps<{ rows: readonly SheetRow[] }>()
const emit = defineEmits<{ changed: [] }>()
const account = useAccount()
const listed = computed(() =>
  props.rows.map((row, i) => ({
    row,
    state: stateOfQuotation({ until: row.until ?? '', isNewest: i === 0, answer: row.answer }, new Date()),
  })),
)
const answering = ref<number | null>(null)
function done(): void {
  answering.value = null
  emit('changed')
}
const tones = {
  sent: '',
  accepted: 'text-suits',
  declined: 'text-bad',
  expired: 'text-changed',
  replaced: 'text-soft',
} as const
</script>

<template>
  <ul v-if="rows.length" aria-label="Issued quotations" class="mt-3">
    <li v-for="{ row, state } in listed" :key="row.count" class="border-t border-line py-2">
      <div class="flex flex-wrap items-baseline gap-x-3">
        <IssuedLinks :row="row" name="Quotation"
          ><strong :class="tones[state]" data-testid="quotation-state">{{
            quotationStates[state]
          }}</strong></IssuedLinks
        >
      </div>
      <p class="text-xs text-soft">
        {{ row.name }}, {{ ago(row.issuedAt) }} by {{ row.issuedBy }}
        <template v-if="row.answer">
          · {{ row.answer.answer === 'accepted' ? 'Accepted' : 'Declined' }} by {{ row.answer.name }},
          {{ ago(row.answer.at) }}<template v-if="row.answer.note">: {{ row.answer.note }}</template>
        </template>
      </p>
      <TakenAlternative v-if="row.answer?.alternative" :row="row" />
      <template v-if="(state === 'sent' || state === 'expired') && account.mayDecide">
        <QuotationAnswer v-if="answering === row.count" :count="row.count" @done="done" /><button
          v-else
          type="button"
          class="act-quiet mt-1"
          @click="answering = row.count"
        >
          Enter answer
        </button>
      </template>
    </li>
  </ul>
</template>
