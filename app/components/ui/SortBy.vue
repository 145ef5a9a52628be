<script setup lang="ts" generic="T extends string">
/** The sort order of a list. */
defineProps<{ sorts: readonly (readonly [key: T, word: string])[] }>()
const sort = defineModel<T>({ required: true })
</script>

<template>
  <label class="flex items-center gap-2"
    ><span class="whitespace-nowrap text-soft">Sort by</span>
    <select v-model="sort" class="entry">
      <option v-for="[key, word] in sorts" :key="key" :value="key">{{ word }}</option>
    </select>
  </label>
</template>
