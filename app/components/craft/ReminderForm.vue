<script setup lang="ts">
/** A reminder by hand. */
const emit = defineEmits<{ add: [due: string, words: string] }>()
const due = ref('')
const words = ref('')
function add() {
  emit('add', due.value, words.value.trim())
  words.value = ''
}
</script>

<template>
  <form class="mt-2 grid grid-cols-[1fr_auto] items-end gap-2" @submit.prevent="add">
    <label class="col-span-2 block"
      ><span class="mb-0.5 block text-xs text-soft">Reminder</span
      ><input v-model="words" class="entry" maxlength="300" required autocomplete="off"
    /></label>
    <label class="block"
      ><span class="mb-0.5 block text-xs text-soft">Due</span
      ><input v-model="due" type="date" class="entry" required
    /></label>
    <button type="submit" class="act-quiet">Add reminder</button>
  </form>
</template>
