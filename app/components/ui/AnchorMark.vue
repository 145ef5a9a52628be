<script setup lang="ts">
import { anchorMark } from '#core/papers/marks'
</script>

<template>
  <svg
    viewBox="0 0 32 32"
    fill="none"
    stroke="currentColor"
    stroke-linecap="round"
    stroke-linejoin="round"
    aria-hidden="true"
  >
    <path v-for="{ d, width } in anchorMark" :key="d" :d="d" :stroke-width="width" />
  </svg>
</template>
