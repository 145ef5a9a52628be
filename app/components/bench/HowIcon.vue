<script setup lang="ts">
import type { How } from '#core/job/fields'

/** The evidence of a value as an icon that cannot be read as a unit. Its words are next to it or in its title. */
const props = defineProps<{ how: How }>()
/** A needle on a dial, a printed sheet, a tag, a speech bubble, and an open circle for assumed values. */
const paths: Readonly<Record<How, string>> = {
  measured: 'M2 12a6 6 0 0 1 12 0M8 12l3-5',
  maker: 'M4 2h6l3 3v9H4zM6.5 7.5h4M6.5 10.5h4',
  label: 'M2 8l6-5.5h6v6L8 14zM11 5.5h.01',
  customer: 'M2 3h12v8H7l-3 3v-3H2z',
  assumed: 'M3 9c1.7-3 3.3-3 5 0s3.3 3 5 0',
}
const path = computed(() => paths[props.how])
</script>

<template>
  <svg viewBox="0 0 16 16" class="size-4" aria-hidden="true">
    <path
      :d="path"
      fill="none"
      stroke="currentColor"
      stroke-width="1.5"
      stroke-linecap="round"
      stroke-linejoin="round"
    />
  </svg>
</template>
