<script setup lang="ts">
import { crafts, partName, partsOf, stages, usePatterns, type PartRef } from '#core/job/document'
import { partKinds, type ManyKindId, type PartKind, type PartKindId } from '#core/job/fields'
import { shelfKindsFor, valuesFromShelf } from '#core/shelf/kinds'
import type { ShelfRecord } from '../../utils/api'

/** What is surveyed at one station of the walk-round. */
const props = defineProps<{ kind: PartKindId }>()
const bench = useJob()
const judging = useJudging()
const view = useView()
const kindInfo = computed<PartKind>(() => partKinds[props.kind])
const parts = computed(() => (bench.document ? partsOf(bench.document, props.kind) : []))
const bearing = computed(
  () => new Map(judging.assessment?.measureNext.map((m) => [m.path, m.bearsOn.length])),
)

/**
 * What is folded away of each part: decided when the station opens, or the part is added, and changed by the
 * person's hand alone.
 */
const folded = new Map<string, ReadonlySet<string>>()
const unfolded = ref(new Set<string>())
function foldedOf({ path, part }: PartRef): ReadonlySet<string> {
  const known =
    folded.get(path) ?? foldedNames(props.kind, part, (name) => bearing.value.has(`${path}/${name}`))
  folded.set(path, known)
  return known
}
function toggle(path: string) {
  if (!unfolded.value.delete(path)) unfolded.value.add(path)
}
/**
 * Every asked field of every part in one list each: those that were folded away come last, and stay where
 * they are.
 */
const fields = computed(() =>
  parts.value.map((ref) => {
    const [asked, away] = [askedFields(props.kind, ref.part), foldedOf(ref)]
    return {
      ...ref,
      rows: asked.toSorted(([a], [b]) => Number(away.has(a)) - Number(away.has(b))),
      away,
      count: asked.filter(([name]) => away.has(name)).length,
    }
  }),
)
watch(
  () => view.wanted,
  (path) => {
    const ref = parts.value.find((one) => path?.startsWith(`${one.path}/`))
    if (ref && foldedOf(ref).has(path!.slice(ref.path.length + 1))) unfolded.value.add(ref.path)
  },
  { immediate: true },
)
const targets = computed(() =>
  bench.document
    ? (kindInfo.value.refers?.to ?? []).flatMap((kind) => partsOf(bench.document!, kind as PartKindId))
    : [],
)
const head = computed(() => bench.document?.job)
const input = (event: Event) => (event.target as HTMLInputElement).value
const shelfKinds = computed(() => shelfKindsFor(props.kind))
const picking = ref<string | null>(null)

const texts = [
  ['number', 'Job number', 40],
  ['name', 'Vehicle or vessel', 200],
  ['customer', 'Customer', 200],
  ['contact', 'Contact', 200],
  ['registration', 'Registration or hull number', 100],
  ['location', 'Where it is', 200],
] as const
const lists = [
  ['craft', 'Kind', crafts],
  ['usePattern', 'How it is used', usePatterns],
  ['stage', 'Stage', stages],
] as const

function add() {
  const first = targets.value[0]?.path
  const part = kindInfo.value.refers && first ? { [kindInfo.value.refers.field]: first } : {}
  const path = bench.addPart(props.kind as ManyKindId, part)
  void nextTick(() => document.querySelector<HTMLElement>(`[data-field^="${path}/"]`)?.focus())
}
function take(part: ShelfRecord) {
  if (picking.value) bench.fillPart(picking.value, valuesFromShelf(part, props.kind))
  picking.value = null
}
</script>

<template>
  <div class="pb-2">
    <p class="px-3 text-xs text-soft">{{ kindInfo.about }}</p>
    <p v-if="kind === 'alternators'" class="mx-3 mt-2 border-l-4 border-changed pl-2 text-xs">
      Moving belts, hot parts and stored energy: sleeves off, meter leads clear, follow the makers’
      instructions.
    </p>
    <p v-if="kind === 'candidate'" class="mx-3 mt-2 text-xs">
      <NuxtLink
        :to="`/jobs/${bench.id}/candidates`"
        class="inline-flex min-h-8 items-center underline max-md:min-h-11"
        >Set others beside it</NuxtLink
      >
    </p>
    <p v-if="kind === 'loads'" class="mx-3 mt-2 text-xs">
      <NuxtLink :to="`/jobs/${bench.id}/loads`" class="act-quiet">Open the energy audit</NuxtLink>
    </p>

    <div v-if="kind === 'use' && head" class="grid gap-2 px-3 py-2">
      <label v-for="[name, label, most] in texts" :key="name" class="block"
        ><span class="font-semibold">{{ label }}</span
        ><input
          class="entry"
          :maxlength="most"
          autocomplete="off"
          :value="head[name] ?? ''"
          @input="bench.setHead(name, input($event))"
      /></label>
      <label v-for="[name, label, options] in lists" :key="name" class="block"
        ><span class="font-semibold">{{ label }}</span>
        <select class="entry" :value="head[name] ?? ''" @change="bench.setHead(name, input($event))">
          <option v-if="!head[name]" value="" disabled>not known yet</option>
          <option v-for="(word, option) in options" :key="option" :value="option">{{ word }}</option>
        </select>
      </label>
      <label class="block"
        ><span class="font-semibold">Due</span
        ><input
          type="date"
          class="entry"
          :value="head.dueDate ?? ''"
          @change="bench.setHead('dueDate', input($event))"
      /></label>
      <label class="block"
        ><span class="font-semibold">What the customer wishes</span
        ><textarea
          class="entry py-1"
          rows="3"
          maxlength="5000"
          :value="head.wishes ?? ''"
          @input="bench.setHead('wishes', input($event))"
        />
      </label>
    </div>

    <section
      v-for="ref in fields"
      :key="ref.path"
      :aria-label="partName(bench.document!, ref.path)"
      class="border-line not-first:border-t"
      :class="kindInfo.many && 'mt-2 pt-1'"
    >
      <div v-if="kindInfo.many || kind === 'candidate'" class="grid gap-2 px-3 pt-1">
        <label class="block"
          ><span class="font-semibold">Name</span
          ><input
            class="entry"
            maxlength="200"
            autocomplete="off"
            :placeholder="kindInfo.one"
            :value="ref.part.name ?? ''"
            @input="bench.setPartText(ref.path, 'name', input($event))"
        /></label>
        <label v-if="kindInfo.refers" class="block"
          ><span class="font-semibold">{{ kindInfo.refers.label }}</span>
          <select
            class="entry"
            :value="ref.part[kindInfo.refers.field] ?? ''"
            @change="bench.setPartText(ref.path, kindInfo.refers!.field, input($event))"
          >
            <option value="">not known yet</option>
            <option v-for="target in targets" :key="target.path" :value="target.path">
              {{ partName(bench.document!, target.path) }}
            </option>
          </select>
        </label>
      </div>
      <div v-if="shelfKinds.length" class="px-3 pt-2">
        <ShelfNote :path="ref.path" :part="ref.part" :kind="kind" @pick="picking = ref.path" />
      </div>
      <FieldRow
        v-for="[name, field] in ref.rows"
        v-show="!ref.away.has(name) || unfolded.has(ref.path)"
        :key="name"
        :path="`${ref.path}/${name}`"
        :name="name"
        :field="field"
        :settles="bearing.get(`${ref.path}/${name}`)"
      />
      <button
        v-if="ref.count"
        type="button"
        class="mx-1 block min-h-9 px-2 py-2 text-soft underline max-md:min-h-11"
        :aria-expanded="unfolded.has(ref.path)"
        @click="toggle(ref.path)"
      >
        {{ unfolded.has(ref.path) ? `Fold the last ${ref.count} away` : `${ref.count} more, seldom needed` }}
      </button>
      <button
        v-if="kindInfo.many"
        type="button"
        class="mx-3 my-1 min-h-9 text-soft underline hover:text-bad max-md:min-h-11"
        @click="bench.removePart(ref.path)"
      >
        Remove {{ partName(bench.document!, ref.path) }}
      </button>
    </section>
    <button v-if="kindInfo.many" type="button" class="act-quiet mx-3 mt-1" @click="add">
      Add {{ kindInfo.one.toLowerCase() }}
    </button>
    <label class="mx-3 mt-3 block"
      ><span class="font-semibold">Note</span
      ><textarea
        class="entry py-1"
        rows="2"
        maxlength="5000"
        placeholder="What you saw here"
        :value="bench.document?.notes[kind] ?? ''"
        @input="bench.setNote(kind, input($event))"
      />
    </label>
    <StationPhotos :station="kind" class="mx-3 mt-2" />
    <ShelfPicker v-if="picking" :kinds="shelfKinds" @pick="take" @close="picking = null" />
  </div>
</template>
