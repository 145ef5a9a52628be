<script setup lang="ts">
import { verdictWords } from '#core/system/verdict'
import type { Sheet } from '#core/papers/sheet'
import { formatQuantity, inSentence } from '#core/units/format'
import type { Unit } from '#core/units/units'
import type { SheetRow } from '../../../../utils/api'

/** A specification sheet as it was issued; it reads nothing of what the job, the rules or the shelf are now. */
const route = useRoute()
const found = shallowRef<(SheetRow & { sheet: Sheet }) | null>(null)
const problem = ref('')
const address = computed(() => `/api/jobs/${String(route.params.id)}/sheets/${String(route.params.count)}`)
onMounted(async () => {
  const answer = await ask<SheetRow & { sheet: Sheet }>(address.value)
  if (answer.kind === 'ok') found.value = answer.data
  else
    problem.value = answer.kind === 'refused' ? `${answer.refused.error}.` : 'The server cannot be reached.'
})
useHead({
  title: () =>
    found.value ? `Specification ${found.value.number} · Jovial Anchor` : 'Specification · Jovial Anchor',
})
const inputs = computed(() => found.value!.sheet.inputs)
const result = computed(() => found.value!.sheet.result)
const say = (value: number, unit: Unit) => formatQuantity(value, unit, inputs.value.shop.units)
const day = (iso: string) =>
  new Date(iso).toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' })
const craft = computed(() => {
  const { customer, name, registration, location } = inputs.value.job.job
  return [customer, name, registration, location].filter(Boolean).join(' · ')
})
const print = () => window.print()
</script>

<template>
  <main v-if="problem" class="mx-auto max-w-xl p-10 text-center">
    <AnchorMark class="mx-auto mb-3 size-12 text-soft" />
    <h1 class="text-2xl">No such sheet</h1>
    <p class="mt-2">{{ problem }}</p>
    <NuxtLink :to="`/jobs/${route.params.id}/specify`" class="act mt-4">To the job</NuxtLink>
  </main>
  <main
    v-else-if="found"
    class="mx-auto max-w-[52rem] p-4 md:px-8 md:py-6 print:max-w-none print:p-0"
    data-testid="sheet"
  >
    <p class="mb-4 flex flex-wrap gap-2 print:hidden">
      <NuxtLink :to="`/jobs/${route.params.id}/specify`" class="act-quiet">Back to the job</NuxtLink
      ><button type="button" class="act-quiet" @click="print">Print</button
      ><a :href="`${address}/pdf`" target="_blank" class="act-quiet">PDF</a
      ><a :href="`${address}/csv`" class="act-quiet">Parts as CSV</a>
    </p>
    <header class="border-b border-line pb-3">
      <p class="text-soft">{{ inputs.shop.name }}</p>
      <h1 class="text-2xl">Specification {{ found.number }}</h1>
      <p>{{ craft }}</p>
      <p class="text-soft">
        Issued {{ day(found.issuedAt) }} by {{ found.issuedBy }}. It stays as it was issued.
      </p>
    </header>
    <section class="border-b border-line py-3">
      <h2 class="text-xl">{{ result.name }}</h2>
      <p class="mt-1 flex flex-wrap gap-x-4">
        <span
          >As found:
          <span
            class="inline-flex items-center gap-1.5 font-semibold"
            :class="verdictColour[result.found.verdict]"
            ><VerdictMark :verdict="result.found.verdict" class="!size-4" />{{ result.found.headline }}</span
          ></span
        ><span
          >As specified:
          <span
            class="inline-flex items-center gap-1.5 font-semibold"
            :class="verdictColour[result.specified.verdict]"
            ><VerdictMark :verdict="result.specified.verdict" class="!size-4" />{{
              result.specified.headline
            }}</span
          ></span
        >
      </p>
      <p class="mt-1 text-soft">{{ result.found.reason }}</p>
    </section>
    <section class="border-b border-line py-3">
      <h2 class="text-lg">Parts</h2>
      <div class="overflow-x-auto" tabindex="0" role="region" aria-label="Parts">
        <table class="w-full">
          <thead>
            <tr class="text-left text-xs text-soft">
              <th class="py-1 font-normal">Part</th>
              <th class="py-1 font-normal">Code</th>
              <th class="py-1 text-right font-normal">Quantity</th>
              <th class="py-1 text-right font-normal">Price</th>
              <th class="py-1 text-right font-normal">Total</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="line in result.lines" :key="line.name" class="border-t border-line">
              <td class="py-1 pr-2">{{ line.name }}</td>
              <td class="py-1 pr-2">{{ line.code }}</td>
              <td class="py-1 pr-2 text-right whitespace-nowrap">{{ line.quantity }} {{ line.unit }}</td>
              <td class="py-1 pr-2 text-right whitespace-nowrap">
                {{ line.price === null ? 'to be asked' : say(line.price, 'money') }}
              </td>
              <td class="py-1 text-right whitespace-nowrap">
                {{ line.total === null ? '–' : say(line.total, 'money') }}
              </td>
            </tr>
            <tr class="border-t border-line">
              <td colspan="4" class="py-1">
                Labour, {{ say(result.hours, 'h') }} at {{ say(result.labourPerH, 'money') }} an hour
              </td>
              <td class="py-1 text-right whitespace-nowrap">
                {{ say(result.hours * result.labourPerH, 'money') }}
              </td>
            </tr>
            <tr class="border-t border-ink font-semibold">
              <td colspan="4" class="py-1">
                Total<template v-if="result.unpriced"
                  >, without {{ result.unpriced }} {{ result.unpriced === 1 ? 'price' : 'prices' }}</template
                >
              </td>
              <td class="py-1 text-right whitespace-nowrap">{{ say(result.total, 'money') }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </section>
    <section class="border-b border-line py-3">
      <h2 class="text-lg">Work</h2>
      <ol class="list-decimal pl-5">
        <li v-for="(step, i) in result.work" :key="i">
          <strong>{{ step.label }}</strong><template v-if="step.on"> ({{ step.on }})</template
          ><span v-if="step.settles.length" class="text-soft"
            >: settles {{ step.settles.map(inSentence).join(', ') }}</span
          >
        </li>
      </ol>
    </section>
    <section class="border-b border-line py-3">
      <h2 class="text-lg">Settings</h2>
      <div class="grid gap-3 sm:grid-cols-2">
        <div v-for="card in result.cards" :key="card.unit" class="break-inside-avoid border border-line p-2">
          <h3 class="text-base">{{ card.unit.replace(/^./, (c) => c.toUpperCase()) }}</h3>
          <dl>
            <div
              v-for="s in card.settings"
              :key="s.label"
              class="flex justify-between gap-3 border-t border-line py-0.5"
            >
              <dt class="text-soft">{{ s.label }}</dt>
              <dd class="font-semibold">
                {{ typeof s.value === 'number' ? say(s.value, s.unit) : s.value }}
              </dd>
            </div>
          </dl>
        </div>
      </div>
    </section>
    <section class="border-b border-line py-3">
      <h2 class="text-lg">Protection</h2>
      <dl>
        <div
          v-for="p in result.protections"
          :key="p.label"
          class="grid gap-x-3 border-t border-line py-1 sm:grid-cols-[14rem_1fr]"
        >
          <dt class="text-soft">{{ p.label }}</dt>
          <dd>{{ p.value }}</dd>
        </div>
      </dl>
    </section>
    <section v-if="result.open.length" class="border-b border-line py-3">
      <h2 class="text-lg">Measure before fitting</h2>
      <ul class="list-disc pl-5">
        <li v-for="words in result.open" :key="words">{{ words }}</li>
      </ul>
    </section>
    <section v-if="result.accepted.length" class="border-b border-line py-3">
      <h2 class="text-lg">Accepted, and told to the customer</h2>
      <ul class="list-disc pl-5">
        <li v-for="words in result.accepted" :key="words">{{ words }}</li>
      </ul>
    </section>
    <section v-if="result.cautions.length" class="border-b border-line py-3">
      <h2 class="text-lg">Cautions</h2>
      <ul class="list-disc pl-5">
        <li v-for="words in result.cautions" :key="words">{{ words }}</li>
      </ul>
    </section>
    <section class="border-b border-line py-3">
      <h2 class="text-lg">As found and as specified</h2>
      <ChangedFields :rows="result.differs" />
    </section>
    <section class="border-b border-line py-3">
      <h2 class="text-lg">Findings as specified</h2>
      <ul>
        <li
          v-for="f in result.findings"
          :key="f.title"
          class="grid grid-cols-[1.25rem_1fr] gap-x-2 border-t border-line py-1"
        >
          <VerdictMark :verdict="f.verdict" class="mt-0.5 !size-4" /><span
            ><span class="font-semibold">{{ f.title }}</span>
            <span class="sr-only">{{ verdictWords[f.verdict] }}.</span> {{ f.summary }}</span
          >
        </li>
      </ul>
    </section>
    <p class="py-3 text-xs">
      Stored energy, mains wiring and engine spaces can hurt: the local code, the makers’ instructions and
      licensed practice come first. This sheet says what was computed and chosen; it claims compliance with no
      standard.
    </p>
  </main>
  <main v-else class="p-10 text-soft" aria-busy="true">Opening the sheet …</main>
</template>
