<script setup lang="ts">
import type { RowsField } from '#core/job/fields'
import { cellsOf, textOfCells } from '#core/job/rows'
import { metric, unitName } from '#core/units/display'

/** Several readings of one thing as a table: a row each, and an empty one for the next. */
const props = defineProps<{
  id: string
  field: RowsField
  text: string
  describedBy: string
  invalid: boolean
}>()
const emit = defineEmits<{ type: [text: string] }>()
const lines = ref<string[][]>([])
watch(
  () => props.text,
  (text) => {
    if (text !== textOfCells(lines.value)) lines.value = cellsOf(text)
  },
  { immediate: true },
)
const rows = computed(() => [...lines.value, []])
/** The next row is entered at its beginning. */
const isReached = (row: number, column: number): boolean => row < lines.value.length || column === 0

function put(changed: string[][]) {
  lines.value = changed
  emit('type', textOfCells(changed))
}
function type(row: number, column: number, cell: string) {
  const changed = rows.value.map((cells) => props.field.columns.map((_, i) => cells[i] ?? ''))
  changed[row]![column] = cell
  put(changed.filter((cells, i) => i < lines.value.length || cells.some((one) => one !== '')))
}
/** A table from elsewhere, as text or out of a spreadsheet, takes the rows from here on. */
function paste(row: number, event: ClipboardEvent) {
  const pasted = cellsOf((event.clipboardData?.getData('text') ?? '').replaceAll('\t', ' / '))
  if (pasted.length === 0 || (pasted.length === 1 && pasted[0]!.length === 1)) return
  event.preventDefault()
  put([...lines.value.slice(0, row), ...pasted, ...lines.value.slice(row + pasted.length)])
}
</script>

<template>
  <table
    class="w-full table-fixed"
    :style="{ maxWidth: `${9 * field.columns.length}rem` }"
    :aria-describedby="describedBy"
  >
    <caption class="sr-only">
      {{
        field.label
      }}
    </caption>
    <thead>
      <tr class="text-left text-xs text-soft">
        <th v-for="column in field.columns" :key="column.name" scope="col" class="pr-1 font-normal">
          {{ column.label }}, {{ unitName(column.unit, metric) }}
        </th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="(cells, row) in rows" :key="row">
        <td v-for="(column, i) in field.columns" :key="column.name" class="pr-1 pb-0.5">
          <input
            :id="row === 0 && i === 0 ? id : undefined"
            class="entry small px-1.5"
            :class="row === lines.length && 'border-dashed'"
            type="text"
            autocomplete="off"
            maxlength="60"
            inputmode="decimal"
            enterkeyhint="next"
            :data-step="isReached(row, i) ? '' : undefined"
            :tabindex="isReached(row, i) ? undefined : -1"
            :aria-label="`${column.label}, row ${row + 1}`"
            :aria-invalid="invalid"
            :value="cells[i] ?? ''"
            @input="type(row, i, ($event.target as HTMLInputElement).value)"
            @paste="paste(row, $event)"
          />
        </td>
      </tr>
    </tbody>
  </table>
</template>
