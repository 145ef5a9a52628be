<script setup lang="ts">
import { currencyCodes, locales } from '#core/quotation/money'
import { mostTaxRates, usualLetterhead, type Letterhead } from '#core/quotation/terms'
import type { LetterheadRow } from '../../server/repositories/letterheads'

/** The workshop's text for its quotations: its name, currency, tax, margins and terms. */
useHead({ title: 'Letterhead and prices · Jovial Anchor' })
useKeys(shopKeys)
const account = useAccount()
const { row, problem: loadProblem } = useLetterhead()
/** A form edits a copy. */
type Draft = { -readonly [K in keyof Letterhead]: Letterhead[K] } & {
  taxRates: { name: string; percent: number }[]
  marginPercent: { batteries: number; charging: number; wiring: number }
}
const copyOf = (letterhead: Letterhead): Draft => structuredClone(letterhead) as Draft
const draft = ref<Draft>(copyOf(usualLetterhead))
watch(row, (loaded) => {
  if (loaded) draft.value = copyOf(loaded.letterhead)
})
const changed = computed(
  () => row.value !== null && JSON.stringify(draft.value) !== JSON.stringify(row.value.letterhead),
)
const problem = ref('')
const isSaved = ref(false)
const busy = ref(false)
async function save(): Promise<void> {
  if (!row.value) return
  busy.value = true
  const { version } = row.value
  const answer = await ask<LetterheadRow>(
    '/api/letterhead',
    asJson('PUT', { letterhead: draft.value, version }),
  )
  busy.value = false
  problem.value = problemOf(answer, 'The server cannot be reached. Nothing was saved.')
  isSaved.value = answer.kind === 'ok'
  if (answer.kind === 'ok') row.value = answer.data
  const theirs = answer.kind === 'refused' ? (answer.refused as { theirs?: LetterheadRow }).theirs : undefined
  if (theirs) {
    row.value = { ...row.value, version: theirs.version }
    problem.value = 'Someone else changed the letterhead. Save again to replace theirs, or reload to see it.'
  }
}
function addRate(): void {
  draft.value.taxRates.push({ name: '', percent: 0 })
}
const areas = [
  ['address', 'Address', 500],
  ['bank', 'Payment: bank details', 500],
  ['terms', 'Terms', 5000],
] as const
const margins = [
  ['batteries', 'Batteries'],
  ['charging', 'Charging'],
  ['wiring', 'Protection and wiring'],
] as const
</script>

<template>
  <main class="mx-auto max-w-4xl p-4 md:px-8 md:py-7">
    <h1 class="text-3xl">Letterhead and prices</h1>
    <p class="mb-4 text-soft">For every new paper. Issued ones stay as they are.</p>
    <p v-if="problem || loadProblem" role="alert" class="mb-3 border-l-4 border-bad bg-card px-3 py-2">
      {{ problem || loadProblem }}
    </p>
    <form v-if="row" class="grid gap-5" @submit.prevent="save">
      <section
        class="grid gap-3 border-y border-line bg-card p-4 md:grid-cols-3"
        aria-labelledby="head-title"
      >
        <h2 id="head-title" class="text-xl md:col-span-3">Workshop</h2>
        <label class="block"
          ><span class="font-semibold">Phone</span
          ><input v-model="draft.phone" class="entry" type="tel" maxlength="60" autocomplete="off"
        /></label>
        <label class="block"
          ><span class="font-semibold">E-mail</span
          ><input v-model="draft.email" class="entry" type="email" maxlength="120" autocomplete="off"
        /></label>
        <label class="block"
          ><span class="font-semibold">Tax number</span
          ><input v-model="draft.taxNumber" class="entry" maxlength="60" autocomplete="off"
        /></label>
        <LogoEntry v-model="draft.logo" />
        <label
          v-for="[key, word, most] in areas"
          :key="key"
          class="block"
          :class="key === 'terms' ? 'md:col-span-3' : ''"
          ><span class="font-semibold">{{ word }}</span
          ><textarea v-model="draft[key]" class="entry min-h-24" :maxlength="most" />
        </label>
      </section>

      <section
        class="grid gap-3 border-y border-line bg-card p-4 md:grid-cols-4"
        aria-labelledby="money-title"
      >
        <h2 id="money-title" class="text-xl md:col-span-4">Money</h2>
        <label class="block"
          ><span class="font-semibold">Currency</span
          ><select v-model="draft.currency" class="entry">
            <option v-for="code in currencyCodes" :key="code">{{ code }}</option>
          </select></label
        >
        <label class="block"
          ><span class="font-semibold">Numbers</span
          ><select v-model="draft.locale" class="entry">
            <option v-for="(example, locale) in locales" :key="locale" :value="locale">{{ example }}</option>
          </select></label
        >
        <NumberEntry
          label="Deposit"
          unit="%"
          :model-value="draft.depositPercent"
          :most="100"
          @update:model-value="draft.depositPercent = $event ?? 0"
        />
        <NumberEntry
          label="Quotations are valid for"
          unit="days"
          whole
          :least="1"
          :model-value="draft.validDays"
          :most="365"
          @update:model-value="draft.validDays = $event ?? usualLetterhead.validDays"
        />
        <fieldset class="grid gap-2 md:col-span-4">
          <legend class="font-semibold">Tax rates. The first counts where a line names no other.</legend>
          <div v-for="(rate, i) in draft.taxRates" :key="i" class="flex flex-wrap items-end gap-2">
            <label class="block grow basis-40"
              ><span class="mb-0.5 block text-xs text-soft">Name</span
              ><input v-model="rate.name" class="entry" maxlength="40" required autocomplete="off"
            /></label>
            <NumberEntry
              class="w-24"
              label="Rate"
              unit="%"
              :model-value="rate.percent"
              :most="100"
              @update:model-value="rate.percent = $event ?? 0"
            />
            <button
              type="button"
              class="act-quiet"
              :disabled="draft.taxRates.length === 1"
              @click="draft.taxRates.splice(i, 1)"
            >
              Remove rate
            </button>
          </div>
          <p>
            <button
              type="button"
              class="act-quiet"
              :disabled="draft.taxRates.length >= mostTaxRates"
              @click="addRate"
            >
              Add tax rate
            </button>
          </p>
        </fieldset>
        <fieldset class="grid gap-2 md:col-span-4 md:grid-cols-3">
          <legend class="font-semibold">Margin on the price of the shelf</legend>
          <NumberEntry
            v-for="[key, word] in margins"
            :key="key"
            :label="word"
            unit="%"
            :model-value="draft.marginPercent[key]"
            :most="1000"
            @update:model-value="draft.marginPercent[key] = $event ?? 0"
          />
        </fieldset>
        <label class="block md:col-span-2"
          ><span class="font-semibold">Cable, lugs and small parts</span
          ><select v-model="draft.consumables" class="entry">
            <option value="itemised">Each on its own line</option>
            <option value="together">All on one line</option>
          </select></label
        >
        <p class="self-end text-soft md:col-span-2">
          The price of an hour is a <NuxtLink to="/rules" class="underline">shop rule</NuxtLink>.
        </p>
      </section>

      <p class="flex flex-wrap items-center gap-3">
        <button type="submit" class="act" :disabled="!changed || busy || !account.mayDecide">
          Save letterhead
        </button>
        <span v-if="!account.mayDecide" class="text-soft">{{ needsInstaller }}</span><span
          v-else-if="isSaved && !changed"
          role="status"
          class="text-suits"
          >Saved</span
        >
      </p>
    </form>
  </main>
</template>
