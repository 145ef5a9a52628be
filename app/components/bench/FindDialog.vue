<script setup lang="ts">
import { inSentence } from '#core/units/format'
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/vue'
import { listParts, partName } from '#core/job/document'

/** Finds a value, a check or a view of this job by its words. */
const open = defineModel<boolean>('open', { required: true })
const bench = useJob()
const judging = useJudging()
const emit = defineEmits<{ measure: [path: string]; check: [key: string] }>()
const words = ref('')

interface Found {
  readonly id: string
  readonly kind: string
  readonly text: string
  readonly go: () => void
}
const everything = computed<Found[]>(() =>
  !bench.document
    ? []
    : [
        { id: 'view-jobs', kind: 'view', text: 'Jobs', go: () => navigateTo('/') },
        ...(
          [
            ['loads', 'Loads'],
            ['candidates', 'Candidates'],
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
        { id: 'view-rules', kind: 'view', text: 'Shop rules', go: () => navigateTo('/rules') },
        {
          id: 'view-summary',
          kind: 'view',
          text: 'Summary page',
          go: () => navigateTo(`/jobs/${bench.id}/summary`),
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
            askedFields(kind, part).map(([name, field]) => ({
              id: `${path}/${name}`,
              kind: 'value',
              text: `${partName(bench.document!, path)}: ${inSentence(field.label)}`,
              go: () => emit('measure', `${path}/${name}`),
            })),
          ),
      ],
)
const found = computed(() => {
  const wanted = words.value.toLowerCase().split(/\s+/).filter(Boolean)
  const phrase = wanted.join(' ')
  const hits = everything.value.filter((f) => wanted.every((w) => f.text.toLowerCase().includes(w)))
  return hits
    .toSorted(
      (a, b) => Number(b.text.toLowerCase().includes(phrase)) - Number(a.text.toLowerCase().includes(phrase)),
    )
    .slice(0, 12)
})
function go(item: Found | null) {
  if (!item) return
  open.value = false
  words.value = ''
  void nextTick(item.go)
}
</script>

<template>
  <AppDialog v-model:open="open" title="Find">
    <Combobox :model-value="null" nullable @update:model-value="go">
      <ComboboxInput
        class="entry"
        aria-label="Find a value, a check or a view"
        placeholder="regulator, float, summary …"
        autocomplete="off"
        maxlength="100"
        :display-value="() => words"
        @change="words = $event.target.value"
        @keydown.esc="open = false"
      />
      <ComboboxOptions static class="mt-2 max-h-[50vh] overflow-y-auto">
        <ComboboxOption v-for="item in found" :key="item.id" v-slot="{ active }" :value="item" as="template">
          <li
            class="flex min-h-9 items-center gap-3 px-2 max-md:min-h-11"
            :class="active && 'bg-sea text-on-sea'"
          >
            <span class="w-12 text-xs opacity-80">{{ item.kind }}</span>{{ item.text }}
          </li>
        </ComboboxOption>
      </ComboboxOptions>
      <p v-if="found.length === 0" class="p-2 text-soft">Nothing by those words on this job.</p>
    </Combobox>
  </AppDialog>
</template>
