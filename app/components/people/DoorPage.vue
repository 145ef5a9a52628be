<script setup lang="ts">
/** A page in front of the application: sign in, or join. */
defineProps<{ title: string; problem?: string }>()
</script>

<template>
  <main class="mx-auto mt-[6vh] max-w-md p-4">
    <AnchorMark class="size-12 text-sea" />
    <h1 class="mt-3 text-3xl">{{ title }}</h1>
    <slot name="about" />
    <p v-if="problem" role="alert" class="mt-3 border-l-4 border-bad bg-card px-3 py-2">{{ problem }}</p>
    <slot />
  </main>
</template>
