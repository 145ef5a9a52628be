<script setup lang="ts">
import { inSentence } from '#core/units/format'
import { howKnown } from '#core/job/fields'
import { readLines } from '#core/job/dictation'
import { readLine, type LineValue } from '#core/job/line'
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/vue'
import { knownAt, listParts, partName, valueOf } from '#core/job/document'

/**
 * Finds a value, a check or a view of this job by its words; a whole line, `regulator 14.4 measured`, sets the
 * value, and the next may follow. Several values in one line are shown before they are set together.
 */
const { q, units } = useWriting()
const { enter, enterAll } = useEntering()
const open = defineModel<boolean>('open', { required: true })
const bench = useJob()
const judging = useJudging()
const emit = defineEmits<{ measure: [path: string]; check: [key: string] }>()
const words = ref('')
/** The result of the line before. */
const said = ref('')

interface Found {
  readonly id: string
  readonly kind: string
  readonly text: string
  /** Its other search words. */
  readonly also?: string
  /** The value it has. */
  readonly now?: string
  readonly go: () => void
}
const everything = computed<Found[]>(() =>
  !bench.document
    ? []
    : [
        { id: 'view-jobs', kind: 'view', text: 'Jobs', go: () => navigateTo('/') },
        { id: 'view-bench', kind: 'view', text: 'Bench', go: () => navigateTo(`/jobs/${bench.id}`) },
        ...(
          [
            ['loads', 'Loads'],
            ['candidates', 'Candidates'],
            ['specify', 'Specify'],
            ['quotation', 'Quotation'],
            ['wiring', 'Wiring'],
            ['prove', 'Prove'],
            ['papers', 'Papers'],
            ['run', 'Run'],
            ['rules', 'Rules of this job'],
          ] as const
        ).map(([path, text]) => ({
          id: `view-${path}`,
          kind: 'view',
          text,
          go: () => navigateTo(`/jobs/${bench.id}/${path}`),
        })),
        { id: 'view-shelf', kind: 'view', text: 'Shelf', go: () => navigateTo('/shelf') },
        { id: 'view-shop-rules', kind: 'view', text: 'Shop rules', go: () => navigateTo('/rules') },
        {
          id: 'view-summary',
          kind: 'view',
          text: 'Summary',
          go: () => navigateTo(`/jobs/${bench.id}/papers/summary`),
        },
        ...(judging.assessment?.checks.map((c) => ({
          id: c.key,
          kind: 'check',
          text: `${c.subject}: ${inSentence(c.title)}`,
          go: () => emit('check', c.key),
        })) ?? []),
        ...listParts(bench.document)
          .filter(({ kind }) => kind !== 'alternatives')
          .flatMap(({ kind, path, part }) =>
            askedFields(kind, part).map(([name, field]) => {
              const now = shownValue(field, valueOf(part, name), q)
              return {
                id: `${path}/${name}`,
                kind: 'value',
                text: `${partName(bench.document!, path)}: ${inSentence(field.label)}`,
                also: `${field.measure} ${now}`,
                now,
                go: () => emit('measure', `${path}/${name}`),
              }
            }),
          ),
      ],
)
const lines = computed<Found[]>(() =>
  bench.document
    ? readLine(bench.document, words.value, units.value)
        .slice(0, 4)
        .map((line) => ({
          id: `set-${line.path}`,
          kind: 'set',
          text: lineWords(line),
          now: nowWords(line),
          go: () => set(line),
        }))
    : [],
)
/** Several values in one line, as someone dictates them; null for one or none. */
const dictated = computed(() => {
  if (!bench.document) return null
  const read = readLines(bench.document, words.value, units.value)
  return read.values.length > 1 ? read : null
})
const setAll = computed<Found[]>(() => {
  if (!dictated.value) return []
  const { values } = dictated.value
  const go = (): void => {
    enterAll(values)
    said.value = `Set: ${values.map(lineWords).join('; ')}.`
  }
  return [{ id: 'set-all', kind: 'set', text: `Set these ${values.length} values`, go }]
})
const partOf = ({ path }: LineValue): string =>
  partName(bench.document!, path.slice(0, path.lastIndexOf('/')))
const lineWords = (line: LineValue): string =>
  `${partOf(line)}: ${inSentence(line.field.label)} ${shownValue(line.field, line.value, q)}${line.how ? `, ${howKnown[line.how].toLowerCase()}` : ''}`
function nowWords({ path, field }: LineValue): string {
  const value = knownAt(bench.document!, path)?.value
  return value == null ? '' : `now ${shownValue(field, value, q)}`
}
function set(line: LineValue) {
  enter(line.path, line.value, line.how)
  said.value = `Set: ${lineWords(line)}.`
}
const found = computed(() => {
  const wanted = words.value.toLowerCase().split(/\s+/).filter(Boolean)
  const phrase = wanted.join(' ')
  const holds = (text: string): boolean => wanted.every((word) => text.toLowerCase().includes(word))
  const rank = ({ text }: Found): number => (text.toLowerCase().includes(phrase) ? 0 : holds(text) ? 1 : 2)
  const hits = everything.value.filter(({ text, also }) => holds(`${text} ${also ?? ''}`))
  return [
    ...setAll.value,
    ...(dictated.value ? [] : lines.value),
    ...hits.toSorted((a, b) => rank(a) - rank(b)).slice(0, 12),
  ]
})
function go(item: Found | null) {
  if (!item) return
  if (item.kind === 'set') {
    item.go()
    words.value = ''
    return
  }
  words.value = ''
  open.value = false
  void nextTick(item.go)
}
watch(open, () => {
  said.value = ''
})
</script>

<template>
  <AppDialog v-model:open="open" title="Find">
    <Combobox :model-value="null" nullable @update:model-value="go">
      <ComboboxInput
        class="entry"
        aria-label="Find a value, a check or a view"
        placeholder="regulator; regulator 14.4 measured; alternator 90 amps 14.4 volts, charger float 13.6"
        autocomplete="off"
        maxlength="400"
        :display-value="() => words"
        @change="words = $event.target.value"
        @keydown.esc="open = false"
      />
      <div v-if="dictated" class="mt-2 border-l-4 border-sea px-3" data-testid="dictated">
        <p v-for="line in dictated.values" :key="line.path">
          {{ lineWords(line) }} <span class="text-xs text-soft">{{ nowWords(line) }}</span>
        </p>
        <p v-if="dictated.unread.length" class="text-changed">
          Not understood: {{ dictated.unread.join(', ') }}
        </p>
      </div>
      <ComboboxOptions static class="mt-2 max-h-[50vh] overflow-y-auto">
        <ComboboxOption v-for="item in found" :key="item.id" v-slot="{ active }" :value="item" as="template">
          <li
            class="flex min-h-9 items-center gap-3 px-2 max-md:min-h-11"
            :class="active && 'bg-sea text-on-sea'"
          >
            <span class="w-12 shrink-0 text-xs opacity-80">{{ item.kind }}</span><span class="min-w-0">{{
              item.text
            }}</span
            ><span v-if="item.now" class="ml-auto pl-2 text-right text-xs opacity-80">{{ item.now }}</span>
          </li>
        </ComboboxOption>
      </ComboboxOptions>
      <p v-if="said" role="status" class="mt-2 text-sea">{{ said }}</p>
      <p v-if="found.length === 0" class="p-2 text-soft">Nothing found in this job.</p>
    </Combobox>
  </AppDialog>
</template>
