<script setup lang="ts">
/** Dialogs of every view of a job: the find box and the keys. */
defineEmits<{ measure: [path: string]; check: [key: string] }>()
const view = useView()
const opens = (dialog: 'find' | 'keys') =>
  computed({
    get: () => view.dialog === dialog,
    set: (open) => {
      view.dialog = open ? dialog : null
    },
  })
const find = opens('find')
const keys = opens('keys')
</script>

<template>
  <KeysDialog v-model:open="keys" />
  <FindDialog v-model:open="find" @measure="$emit('measure', $event)" @check="$emit('check', $event)" />
</template>
