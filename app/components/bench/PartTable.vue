<script setup lang="ts">
import { partName, type PartRef } from '#core/job/document'
import type { StationPart } from '../../composables/station-parts'
import type { Field, ManyKindId } from '#core/job/fields'

/** Parts of one kind as a table, one row each, with rarely needed fields below on demand. */
const props = defineProps<{
  kind: ManyKindId
  /** Fields without a column show only on demand, even if known. */
  brief?: boolean
}>()
const slots = defineSlots<{ heads?(): unknown; figures?(of: PartRef): unknown }>()
const bench = useJob()
const { kindInfo, parts, targets, bearing, unfolded, toggle } = useStationParts(() => props.kind)
const columns = computed(() => kindInfo.value.columns!)
/** Room of a column next to that of others: the longest word of a list shows whole. */
function roomOf(field: Field): number {
  if (field.type !== 'choice' || fitsShortButtons(field)) return 1.1
  return 0.6 + 0.08 * Math.max(...Object.values(field.options).map((option) => option.length))
}
const rooms = computed(() => {
  const all = [
    1.8,
    ...(kindInfo.value.refers ? [1.6] : []),
    ...columns.value.map(([name]) => roomOf(kindInfo.value.fields[name!]!)),
    ...(slots.figures ? [0.7] : []),
  ]
  const sum = all.reduce((a, b) => a + b)
  return all.map((room) => `${(92 * room) / sum}%`)
})
const heads = computed(() => columns.value.map(([name]) => kindInfo.value.fields[name!]!.label))
/** Number of columns: name, owner, fields, figures and actions. */
const across = computed(
  () => columns.value.length + (kindInfo.value.refers ? 3 : 2) + (slots.figures ? 1 : 0),
)
const input = (event: Event) => (event.target as HTMLInputElement).value

/** The fields in the columns: of several fields the applicable one. */
const cellsOf = (rows: readonly [string, Field][]): readonly ([string, Field] | undefined)[] =>
  columns.value.map((names) => rows.find(([name]) => names.includes(name)))
const inColumns = computed(() => new Set(columns.value.flat()))
/** Fields without a column, hidden ones last. */
const beneath = ({ rows }: StationPart) => rows.filter(([name]) => !inColumns.value.has(name))
const isAway = ({ away }: StationPart, name: string): boolean => props.brief || away.has(name)
/** How many of them show without being asked for. */
const shownOf = (ref: StationPart): number => beneath(ref).filter(([name]) => !isAway(ref, name)).length
</script>

<template>
  <table class="part-table">
    <caption class="sr-only">
      {{
        kindInfo.title
      }}
    </caption>
    <colgroup>
      <col v-for="(width, i) in rooms" :key="i" :style="{ width }" />
      <col />
    </colgroup>
    <thead>
      <tr>
        <th scope="col">{{ kindInfo.one }}</th>
        <th v-if="kindInfo.refers" scope="col">{{ kindInfo.refers.label }}</th>
        <th v-for="head in heads" :key="head" scope="col">{{ head }}</th>
        <slot name="heads" />
        <th scope="col"><span class="sr-only">More fields</span></th>
      </tr>
    </thead>
    <tbody
      v-for="ref in parts"
      :key="ref.path"
      :aria-label="partName(bench.document!, ref.path)"
      :data-part="ref.path"
    >
      <tr>
        <td class="name">
          <label
            ><span class="head">Name</span
            ><input
              class="entry"
              maxlength="200"
              autocomplete="off"
              enterkeyhint="next"
              data-step
              :placeholder="kindInfo.one"
              :value="ref.part.name ?? ''"
              @input="bench.setPartText(ref.path, 'name', input($event))"
          /></label>
        </td>
        <td v-if="kindInfo.refers">
          <label
            ><span class="head">{{ kindInfo.refers.label }}</span>
            <ReferredPart :of="ref" :refers="kindInfo.refers" :targets="targets"
          /></label>
        </td>
        <td
          v-for="(cell, i) in cellsOf(ref.rows)"
          :key="i"
          :class="{ settles: cell && bearing.has(`${ref.path}/${cell[0]}`) }"
        >
          <template v-if="cell">
            <label :for="`${ref.path}/${cell[0]}`" class="head">{{ cell[1].label }}</label>
            <FieldEntry
              :id="`${ref.path}/${cell[0]}`"
              :key="cell[0]"
              :path="`${ref.path}/${cell[0]}`"
              :name="cell[0]"
              :field="cell[1]"
              compact
            />
          </template>
        </td>
        <slot name="figures" v-bind="ref" />
        <td class="acts">
          <MoreOfPart
            v-if="beneath(ref).length > 0 && shownOf(ref) === 0"
            :path="ref.path"
            :open="unfolded.has(ref.path)"
            @toggle="toggle(ref.path, $event)"
          />
          <RemovePart v-else-if="beneath(ref).length === 0" :path="ref.path" />
        </td>
      </tr>
      <tr v-show="unfolded.has(ref.path) || shownOf(ref) > 0">
        <td :colspan="across" class="underneath">
          <div class="grid grid-cols-1 xl:grid-cols-2 xl:gap-x-5">
            <template v-for="([name, field], i) in beneath(ref)" :key="name">
              <MoreOfPart
                v-if="i > 0 && i === shownOf(ref)"
                :path="ref.path"
                :open="unfolded.has(ref.path)"
                class="col-span-full justify-self-end"
                @toggle="toggle(ref.path, $event)"
              />
              <FieldRow
                v-show="!isAway(ref, name) || unfolded.has(ref.path)"
                :path="`${ref.path}/${name}`"
                :name="name"
                :field="field"
                :settles="bearing.get(`${ref.path}/${name}`)"
              />
            </template>
          </div>
          <RemovePart
            v-if="unfolded.has(ref.path) || shownOf(ref) === beneath(ref).length"
            :path="ref.path"
          />
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
@reference '../../assets/main.css';
.part-table {
  @apply w-full table-fixed border-separate border-spacing-x-1 border-spacing-y-0 max-md:block;
}
.part-table > thead > tr > th {
  @apply pb-1 text-left align-bottom text-xs leading-tight font-normal text-soft;
}
.part-table > thead {
  @apply max-md:hidden;
}
.part-table > tbody {
  @apply max-md:mt-3 max-md:block max-md:border-t-2 max-md:border-rope;
}
.part-table > tbody > tr {
  @apply max-md:flex max-md:flex-wrap max-md:gap-x-2 max-md:gap-y-1 max-md:py-1;
}
.part-table > tbody > tr > td {
  @apply border-t border-line py-1 max-md:w-[calc(50%-0.25rem)] max-md:border-0 max-md:p-0;
}
.part-table > tbody > tr > .name {
  @apply min-w-24 max-md:w-full;
}
.settles {
  @apply shadow-[inset_2px_0_var(--measure)];
}
.head {
  @apply text-xs text-soft md:sr-only;
}
.part-table .entry {
  @apply min-h-8 px-1 text-[13px] max-md:min-h-11 max-md:text-base;
}
.part-table > tbody > tr > .acts {
  @apply text-right text-xs whitespace-nowrap max-md:w-full;
}
.part-table > tbody > tr > .underneath {
  @apply border-0 pt-0 pl-4 max-md:w-full;
}
</style>
