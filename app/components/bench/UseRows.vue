<script setup lang="ts">
import { crafts, usePatterns } from '#core/job/document'

/** The kind of vehicle or vessel, and its use: both decide checks. */
const bench = useJob()
const lists = [
  ['craft', 'Kind', crafts],
  ['usePattern', 'How it is used', usePatterns],
] as const
</script>

<template>
  <div v-if="bench.document" class="grid grid-cols-1 xl:grid-cols-2 xl:gap-x-5">
    <PlainRow v-for="[name, label, options] in lists" :key="name" :label="label">
      <select
        class="entry"
        data-step
        :value="bench.document.job[name] ?? ''"
        @change="bench.setHead(name, ($event.target as HTMLSelectElement).value)"
      >
        <option v-if="!bench.document.job[name]" value="" disabled>unknown</option>
        <option v-for="(word, option) in options" :key="option" :value="option">{{ word }}</option>
      </select>
    </PlainRow>
  </div>
</template>
