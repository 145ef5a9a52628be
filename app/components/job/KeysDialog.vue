<script setup lang="ts">
const open = defineModel<boolean>('open', { required: true })
const single = useSingleKeys()
const keys = [
  ['/', 'find a value, a check or a view'],
  ['w', 'walk-round: the open station, or the first'],
  ['m', 'next measurement'],
  ['[  ]', 'previous and next check'],
  ['t', 'try the first remedy'],
  ['g j', 'go to the jobs'],
  ['g b', 'go to the bench'],
  ['g l', 'go to the loads'],
  ['g c', 'go to the candidates'],
  ['g p', 'go to specify'],
  ['g w', 'go to the wiring'],
  ['g v', 'go to prove'],
  ['g u', 'go to the run'],
  ['g s', 'go to the summary page'],
  ['g h', 'go to the shelf'],
  ['g r', 'go to the shop rules'],
  ['Ctrl Z', 'undo'],
  ['Ctrl Shift Z', 'redo'],
  ['?', 'show these keys'],
  ['Escape', 'close the open panel'],
  ['↑ ↓', 'in a number: step'],
  ['Enter', 'in the survey: next field, with Ctrl next measurement'],
  ['Page Down', 'in the survey: next station'],
  ['1 2 3 4', 'choose one of a few options'],
] as const
</script>

<template>
  <AppDialog v-model:open="open" title="Keys">
    <p class="text-soft">These keys do nothing while you type in a field.</p>
    <dl
      class="mt-3 grid max-h-[55vh] grid-cols-[7rem_1fr] gap-y-1.5 overflow-y-auto"
      tabindex="0"
      aria-label="Keys"
    >
      <template v-for="[key, what] in keys" :key="key"
        ><dt>
          <kbd class="key !text-sm">{{ key }}</kbd>
        </dt>
        <dd>{{ what }}</dd></template
      >
    </dl>
    <label class="mt-4 flex min-h-11 items-center gap-3"
      ><input v-model="single" type="checkbox" class="size-5" />Single keys act as shortcuts</label
    >
  </AppDialog>
</template>
