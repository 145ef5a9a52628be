<script setup lang="ts">
import { inSentence } from '#core/units/format'
import type { CheckResult } from '#core/assessment/assess'
import { verdictWords } from '#core/system/verdict'

/** The checks of a lane, worst first; choosing one shows its reasons. */
const props = defineProps<{ checks: readonly CheckResult[]; named?: boolean }>()
const view = useView()
const emit = defineEmits<{ chosen: [] }>()
const order = ['does-not-suit', 'measure-first', 'suits-once-changed', 'suits']
const sorted = computed(() =>
  [...props.checks].sort((a, b) => order.indexOf(a.verdict) - order.indexOf(b.verdict)),
)
function choose(key: string) {
  view.selected = key
  emit('chosen')
}
</script>

<template>
  <ul class="flex flex-wrap gap-x-1 gap-y-1">
    <li v-for="c in sorted" :key="c.key">
      <button
        type="button"
        class="inline-flex min-h-7 items-center gap-1.5 rounded-sm border px-1.5 text-left text-xs max-md:min-h-11 max-md:px-2.5"
        :class="
          view.selectedCheck?.key === c.key ? 'border-ink bg-paper' : 'border-transparent hover:border-edge'
        "
        :aria-pressed="view.selectedCheck?.key === c.key"
        :data-check="c.key"
        :data-verdict="c.verdict"
        @click="choose(c.key)"
      >
        <VerdictMark :verdict="c.verdict" size="tiny" /><span class="sr-only"
          >{{ verdictWords[c.verdict] }}: </span
        >{{ named && c.subject !== 'New battery' ? `${c.subject}: ${inSentence(c.title)}` : c.title }}
      </button>
    </li>
  </ul>
</template>
