<script setup lang="ts">
import { photosIn } from '#core/job/paper-photos'
import { plainInputs } from '#core/papers/inputs'
import { isPlainKind, paperKinds, type PlainKind } from '#core/papers/kinds'
import { labelSheetIds } from '#core/papers/label-sheets'
import { photosSection } from '#core/papers/photos'
import { sheetInputs } from '#core/papers/sheet'
import { asCallback, plain } from '../../../../engine/client'

/** A paper as it would be issued now. */
definePageMeta({ validate: ({ params }) => isPlainKind(String(params.kind)) })
const route = useRoute()
const kind = computed(() =>
  isPlainKind(String(route.params.kind)) ? (String(route.params.kind) as PlainKind) : 'summary',
)
const shop = useShop()
const { bench, problem, id } = useJobPage(paperKinds[kind.value])
const labelSheet = computed(() => labelSheetIds.find((sheet) => sheet === route.query.labelSheet))
const { letterhead, isSettled } = useLetterhead()
const issuedAt = new Date().toISOString()
/** Labels and cards are printed from the PDF, in their true size. */
const isGrid = computed(() => kind.value === 'labels' || kind.value === 'cards')
const pdf = computed(() => {
  const query = labelSheet.value ? `?labelSheet=${labelSheet.value}` : ''
  return `/api/jobs/${id.value}/papers/${kind.value}/pdf${query}`
})
const { photos, load } = useJobPhotos()
onMounted(() => load(id.value))
const print = () => window.print()

const { result: drawn, problem: failed } = useAsked(
  (engine, job, { rules = {}, units }) => {
    const settings = {
      name: shop.shop.name,
      rules,
      units: units ?? shop.shop.units,
      letterhead: plain(letterhead.value),
    }
    const inputs = sheetInputs(job, settings, { number: '', issuedAt, issuedBy: '' })
    return engine.paper(
      kind.value,
      plainInputs(inputs, labelSheet.value ? { labelSheet: labelSheet.value } : {}),
      asCallback(layOut),
    )
  },
  () => (isSettled.value ? bench.document : null),
)
/** With its photos, as this page reaches them. */
const paper = computed(() => {
  if (!drawn.value) return null
  const shown = photosIn(bench.document?.paperPhotos, kind.value, photos.value).map(({ photo, caption }) => ({
    source: photo.address,
    caption,
  }))
  return { ...drawn.value, sections: [...drawn.value.sections, ...photosSection(shown)] }
})
</script>

<template>
  <main v-if="problem" class="p-10 text-center">
    <h1 class="text-2xl">This job cannot be opened</h1>
    <p class="mt-2">{{ problem }}</p>
  </main>
  <main v-else-if="paper" class="mx-auto max-w-[52rem] p-4 md:px-8 md:py-6 print:max-w-none print:p-0">
    <p class="mb-4 flex flex-wrap gap-2 print:hidden">
      <NuxtLink :to="`/jobs/${id}/papers`" class="act-quiet">Back to papers</NuxtLink
      ><button v-if="!isGrid" type="button" class="act" @click="print">Print draft</button
      ><a :href="pdf" target="_blank" :class="isGrid ? 'act' : 'act-quiet'">{{
        isGrid ? 'PDF to print' : 'PDF'
      }}</a>
    </p>
    <PaperSheet :paper="paper" />
  </main>
  <main v-else class="p-10 text-soft" :aria-busy="!failed">{{ failed || 'Making the paper …' }}</main>
</template>
