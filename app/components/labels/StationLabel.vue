<script setup lang="ts">
import { partName, valueOf, type AnyPart, type PartRef } from '#core/job/document'
import { partKinds, type Fields, type Known } from '#core/job/fields'
import { shelfKindsFor, valuesFromShelf, type ShelfPart } from '#core/shelf/kinds'
import type { LabelUse, NowKnown } from '../../utils/labels'

/** Reads the label of a part: its photo is stored with the station, and one step of undo sets the ticked values. */
const props = defineProps<{ of: PartRef }>()
const bench = useJob()
const { add } = useJobPhotos()
const isOpen = ref(false)
const problem = ref('')
const name = computed(() => partName(bench.document!, props.of.path))
const now = computed(() => props.of.part as Readonly<Record<string, NowKnown | undefined>>)
const fields = computed<Fields>(() => partKinds[props.of.kind].fields)

/** Nominal voltage of the house system; null if nobody knows it yet. */
const nominalV = computed(() => {
  const { houseBank, candidate } = bench.document!
  const known = valueOf(houseBank as AnyPart, 'nominalV') ?? valueOf(candidate as AnyPart, 'nominalV')
  return known == null ? null : Number(known)
})

async function keep(file: File) {
  const picture = await smallerPicture(file)
  problem.value = ''
  if (picture && !(await add(props.of.kind, `Label: ${name.value}`, picture)))
    problem.value = 'This browser has no room left. The photo of the label is not kept.'
}
function use({ values, model, serial }: LabelUse) {
  const known = values.map(({ field, value }): [string, Known<unknown>] => [field, { value, how: 'label' }])
  bench.fillPart(props.of.path, {
    ...Object.fromEntries(known),
    ...(serial && { serial }),
    ...(model && !props.of.part.name && { name: model }),
  })
  isOpen.value = false
}
function pick(part: ShelfPart) {
  bench.fillPart(props.of.path, valuesFromShelf(part, props.of.kind))
  isOpen.value = false
}
</script>

<template>
  <button type="button" class="act-quiet" @click="isOpen = true">
    Read label<span class="sr-only">: {{ name }}</span>
  </button>
  <span v-if="problem" role="alert" class="text-xs text-bad">{{ problem }}</span>
  <LazyLabelDialog
    v-if="isOpen"
    :title="name"
    :part="of.kind"
    :fields="fields"
    :nominal-v="nominalV"
    :now="now"
    :shelf-kinds="shelfKindsFor(of.kind)"
    keeps
    @photo="keep"
    @use="use"
    @pick="pick"
    @close="isOpen = false"
  />
</template>
