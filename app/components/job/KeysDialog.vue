<script setup lang="ts">
const open = defineModel<boolean>('open', { required: true })
const single = useSingleKeys()
</script>

<template>
  <AppDialog v-model:open="open" title="Keys">
    <p class="text-soft">
      These keys do nothing while you type in a field.
      <NuxtLink to="/help" class="inline-block min-h-6 underline max-md:min-h-11">Tour and glossary</NuxtLink>
    </p>
    <div class="mt-3 max-h-[55vh] overflow-y-auto" tabindex="0" role="region" aria-label="Keys">
      <KeyList />
    </div>
    <label class="mt-4 flex min-h-11 items-center gap-3"
      ><input v-model="single" type="checkbox" class="size-5" />Single keys act as shortcuts</label
    >
  </AppDialog>
</template>
