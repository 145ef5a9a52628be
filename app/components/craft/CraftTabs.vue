<script setup lang="ts">
/** The lists of craft and of customers, next to each other. */
const route = useRoute()
const lists = [
  ['/craft', 'Craft'],
  ['/customers', 'Customers'],
  ['/reminders', 'Reminders'],
  ['/learnt', 'Learnt'],
] as const
</script>

<template>
  <nav aria-label="Lists" class="mb-4 flex gap-x-1 border-b border-line max-md:overflow-x-auto">
    <NuxtLink
      v-for="[path, word] in lists"
      :key="path"
      :to="path"
      class="inline-flex min-h-9 shrink-0 items-center border-b-[3px] px-3 font-semibold max-md:min-h-11"
      :class="route.path === path ? 'border-sea' : 'border-transparent text-soft hover:border-edge'"
      :aria-current="route.path === path ? 'page' : undefined"
      >{{ word }}</NuxtLink
    >
  </nav>
</template>
