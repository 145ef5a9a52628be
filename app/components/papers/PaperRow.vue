<script setup lang="ts">
import { paperSize } from '#core/papers/blocks'
import { isPlainKind, paperKinds, type PaperKind } from '#core/papers/kinds'
import { labelSheets, usualLabelSheet, type LabelSheetId } from '#core/papers/label-sheets'
import type { Missing } from '#core/papers/missing'
import type { SheetRow } from '../../utils/api'

/** A paper of the job: its state, its missing items, and its actions. */
const props = defineProps<{
  kind: PaperKind
  rows: readonly SheetRow[]
  missing: readonly Missing[]
  canIssue: boolean
  busy: boolean
}>()
const emit = defineEmits<{ issue: [choices: { labelSheet?: LabelSheetId; withCode?: boolean }] }>()
const bench = useJob()
const account = useAccount()
const shop = useShop()
const newest = computed(() => props.rows[0])
const older = computed(() => props.rows.slice(1))
const isStopped = computed(() => props.missing.some(({ stops }) => stops))
const labelSheet = ref<LabelSheetId>(usualLabelSheet(paperSize(shop.shop.units.system)))
const withCode = ref(false)
const isOther = computed(() => props.kind === 'quotation' || props.kind === 'record')
const pathOf = (row: SheetRow): string => `/api/jobs/${bench.id}/sheets/${row.count}/pdf`
const problem = ref('')
async function share(row: SheetRow): Promise<void> {
  problem.value = ''
  await shareFile(pathOf(row), `${row.kind}-${row.number}.pdf`).catch(() => {
    problem.value = 'The server cannot be reached. Nothing was shared.'
  })
}
function issue(): void {
  emit('issue', {
    ...(props.kind === 'labels' ? { labelSheet: labelSheet.value } : {}),
    ...(props.kind === 'cards' && withCode.value ? { withCode: true } : {}),
  })
}
</script>

<template>
  <li
    class="grid gap-x-4 gap-y-1 border-t border-line py-3 first:border-t-0 md:grid-cols-[minmax(0,1fr)_auto]"
    :data-paper="kind"
  >
    <div class="min-w-0">
      <h2 class="text-lg">
        {{ paperKinds[kind] }}
        <span
          class="text-sm font-normal"
          :class="newest ? 'text-suits' : 'text-soft'"
          data-testid="paper-state"
          >{{ paperState(newest) }}</span
        >
      </h2>
      <p class="text-soft">{{ paperPurpose[kind] }}</p>
      <ul v-if="missing.length" class="mt-1 list-disc pl-5" aria-label="Missing">
        <li v-for="one in missing" :key="one.words" :class="{ 'text-bad': one.stops }">{{ one.words }}</li>
      </ul>
      <p v-if="newest" class="mt-1">
        <NuxtLink
          :to="`/jobs/${bench.id}/sheets/${newest.count}`"
          class="inline-flex min-h-8 items-center font-semibold underline max-md:min-h-11"
          >{{ paperKinds[kind] }} {{ newest.number }}</NuxtLink
        >
        <span class="ml-2 text-xs text-soft">issued {{ ago(newest.issuedAt) }} by {{ newest.issuedBy }}</span>
      </p>
      <p v-if="older.length" class="text-xs text-soft">
        Replaced:
        <template v-for="(row, i) in older" :key="row.count"
          ><template v-if="i > 0">, </template
          ><NuxtLink :to="`/jobs/${bench.id}/sheets/${row.count}`" class="underline">{{
            row.number
          }}</NuxtLink>
        </template>
      </p>
      <p v-if="problem" role="alert" class="text-bad">{{ problem }}</p>
    </div>
    <div class="flex flex-wrap content-start items-center gap-2 md:max-w-72 md:justify-end">
      <label v-if="kind === 'labels'" class="block w-full"
        ><span class="mb-0.5 block text-xs text-soft">Label sheet</span
        ><select v-model="labelSheet" class="entry">
          <option v-for="(sheet, id) in labelSheets" :key="id" :value="id">{{ sheet.name }}</option>
        </select></label
      >
      <label v-if="kind === 'cards' && account.isShop" class="flex min-h-8 items-start gap-2 max-md:min-h-11"
        ><input v-model="withCode" type="checkbox" class="mt-1 size-4" /><span
          >Code of the customer’s page
          <span class="block text-xs text-soft">Makes a new link. The link before ends.</span></span
        ></label
      >
      <NuxtLink
        v-if="isPlainKind(kind) && !isStopped"
        :to="{ path: `/jobs/${bench.id}/papers/${kind}`, query: kind === 'labels' ? { labelSheet } : {} }"
        class="act-quiet"
        >Preview</NuxtLink
      >
      <NuxtLink v-if="isOther" :to="`/jobs/${bench.id}/${paperView[kind]}`" class="act-quiet">{{
        kind === 'quotation' ? 'Edit quotation' : 'Sign record'
      }}</NuxtLink>
      <button
        v-else
        type="button"
        class="act-quiet"
        :disabled="!canIssue || isStopped || busy"
        @click="issue"
      >
        {{ newest ? 'Replace' : 'Issue' }}
      </button>
      <template v-if="newest">
        <a :href="pathOf(newest)" target="_blank" class="act-quiet">PDF</a>
        <button type="button" class="act-quiet" @click="share(newest)">Share</button>
      </template>
    </div>
  </li>
</template>
