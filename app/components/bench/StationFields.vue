<script setup lang="ts">
import { partName } from '#core/job/document'
import type { ManyKindId, PartKindId } from '#core/job/fields'
import { labelledKinds } from '#core/labels/kinds'
import { shelfKindsFor, valuesFromShelf, type ShelfPart } from '#core/shelf/kinds'

/** The fields of one station of the walk-round, as a sheet of rows. */
const props = defineProps<{ kind: PartKindId }>()
defineEmits<{ go: [station: StationId]; nextMeasurement: []; close: [] }>()
const bench = useJob()
const view = useView()
const {
  kindInfo,
  parts,
  targets,
  bearing,
  unfolded,
  toggle,
  add: addPart,
} = useStationParts(() => props.kind)
const input = (event: Event) => (event.target as HTMLInputElement).value
const shelfKinds = computed(() => shelfKindsFor(props.kind))
const { began, confirmable, confirmRest } = useStationRest(() => props.kind)
const hasLabel = computed(() => labelledKinds.includes(props.kind))
const picking = ref<string | null>(null)

const sheet = useTemplateRef<{ element: HTMLElement }>('sheet')
const sources = [
  ['label', 'Label'],
  ['maker', 'Maker’s data'],
  ['measured', 'Meter'],
  ['customer', 'Customer'],
] as const
const remarks = ref(false)
const remarked = computed(() => Boolean(bench.document?.notes[props.kind]))

function add() {
  const path = addPart()
  void nextTick(() => {
    const section = sheet.value?.element.querySelector(`[data-part="${path}"]`)
    if (section) firstStep(section)
  })
}
function take(part: ShelfPart) {
  if (picking.value) bench.fillPart(picking.value, valuesFromShelf(part, props.kind))
  picking.value = null
}
</script>

<template>
  <StationSheet
    ref="sheet"
    :station="kind"
    :bearing="bearing"
    @go="$emit('go', $event)"
    @next-measurement="$emit('nextMeasurement')"
    @confirm-rest="confirmRest"
    @close="$emit('close')"
  >
    <div
      role="group"
      aria-label="Source of what I type next"
      class="sticky top-0 z-10 -mx-1 flex max-md:top-10 flex-wrap items-center gap-x-1.5 gap-y-1 bg-card px-1 py-2 text-xs"
    >
      <!-- A press leaves the focus in the entry, and the keypad up. -->
      <span class="text-soft">Source of what I type next</span
      ><button
        v-for="[how, word] in sources"
        :key="how"
        type="button"
        class="min-h-7 rounded-sm border px-2 max-md:min-h-11"
        :class="view.source === how ? 'border-sea bg-sea font-semibold text-on-sea' : 'border-edge'"
        :aria-pressed="view.source === how"
        @mousedown.prevent
        @click="view.source = view.source === how ? null : how"
      >
        {{ word }}
      </button>
      <!-- It keeps its place: nothing moves where it goes. -->
      <button
        v-if="began > 0"
        type="button"
        class="ml-auto min-h-7 underline max-md:min-h-11"
        :class="confirmable === 0 && 'invisible'"
        data-testid="confirm-rest"
        @mousedown.prevent
        @click="confirmRest"
      >
        {{ confirmable === 1 ? 'The assumed value holds' : `All ${confirmable} assumed values hold` }}
      </button>
      <NuxtLink
        v-if="kind === 'candidate'"
        :to="`/jobs/${bench.id}/candidates`"
        class="ml-auto inline-flex min-h-7 items-center underline max-md:min-h-11"
        >Compare other batteries</NuxtLink
      ><NuxtLink
        v-if="kind === 'loads'"
        :to="`/jobs/${bench.id}/loads`"
        class="ml-auto inline-flex min-h-7 items-center underline max-md:min-h-11"
        >Open the energy audit</NuxtLink
      >
    </div>
    <p v-if="kind === 'alternators'" class="mb-2 border-l-4 border-changed pl-2 text-xs">
      Moving belts, hot parts and stored energy: sleeves off, meter leads clear, follow the makers’
      instructions.
    </p>

    <UseRows v-if="kind === 'use'" />

    <PartTable v-if="kindInfo.columns && parts.length" :kind="kind as ManyKindId" />
    <section
      v-for="(ref, i) in kindInfo.columns ? [] : parts"
      :key="ref.path"
      :aria-label="partName(bench.document!, ref.path)"
      :data-part="ref.path"
      :class="i > 0 && 'mt-4 border-t-2 border-rope pt-1'"
    >
      <div
        v-if="kindInfo.many || kind === 'candidate' || shelfKinds.length || hasLabel"
        class="flex flex-wrap items-center gap-x-3 gap-y-1 py-1"
      >
        <label v-if="kindInfo.many || kind === 'candidate'" class="flex min-w-40 flex-1 items-center gap-2"
          ><span class="font-semibold">Name</span
          ><input
            class="entry small"
            maxlength="200"
            autocomplete="off"
            enterkeyhint="next"
            data-step
            :placeholder="kindInfo.one"
            :value="ref.part.name ?? ''"
            @input="bench.setPartText(ref.path, 'name', input($event))"
        /></label>
        <label v-if="kindInfo.refers" class="flex min-w-44 flex-1 items-center gap-2"
          ><span class="font-semibold whitespace-nowrap">{{ kindInfo.refers.label }}</span>
          <ReferredPart class="small" :of="ref" :refers="kindInfo.refers" :targets="targets" />
        </label>
        <ShelfNote
          v-if="shelfKinds.length"
          :path="ref.path"
          :part="ref.part"
          :kind="kind"
          @pick="picking = ref.path"
        />
        <StationLabel v-if="hasLabel" :of="ref" />
        <label v-if="ref.part.serial !== undefined" class="flex min-w-40 items-center gap-2"
          ><span class="whitespace-nowrap text-soft">Serial number</span
          ><input
            class="entry small"
            maxlength="100"
            autocomplete="off"
            data-step
            :value="ref.part.serial"
            @input="bench.setPartText(ref.path, 'serial', input($event))"
        /></label>
        <RemovePart v-if="kindInfo.many" :path="ref.path" />
      </div>
      <div class="grid grid-cols-1 border-t border-line xl:grid-cols-2 xl:gap-x-5">
        <template v-for="([name, field], at) in ref.rows" :key="name">
          <button
            v-if="at === ref.rows.length - ref.count"
            type="button"
            class="col-span-full min-h-9 py-1 text-left text-soft underline max-md:min-h-11"
            data-step
            :aria-expanded="unfolded.has(ref.path)"
            @click="toggle(ref.path, $event)"
          >
            {{ unfolded.has(ref.path) ? `Fold the last ${ref.count} away` : `Seldom needed: ${ref.count}` }}
          </button>
          <FieldRow
            v-show="!ref.away.has(name) || unfolded.has(ref.path)"
            :path="`${ref.path}/${name}`"
            :name="name"
            :field="field"
            :settles="bearing.get(`${ref.path}/${name}`)"
          />
        </template>
      </div>
    </section>
    <div class="mt-3 flex flex-wrap items-start gap-2">
      <button v-if="kindInfo.many" type="button" class="act-quiet" data-step @click="add">
        Add {{ kindInfo.one.toLowerCase() }}
      </button>
      <button
        type="button"
        class="act-quiet"
        :aria-expanded="remarks || remarked"
        @click="remarks = !remarks"
      >
        Note
      </button>
      <StationPhotos :station="kind" />
    </div>
    <label v-if="remarks || remarked" class="mt-2 block"
      ><span class="sr-only">Note</span
      ><textarea
        class="entry py-1"
        rows="2"
        maxlength="5000"
        placeholder="What you saw here"
        :value="bench.document?.notes[kind] ?? ''"
        @input="bench.setNote(kind, input($event))"
      />
    </label>
    <ShelfPicker v-if="picking" :kinds="shelfKinds" @pick="take" @close="picking = null" />
  </StationSheet>
</template>
