<script setup lang="ts">
import { quotationGroups, type AddedLine, type QuotationGroup } from '#core/job/quotation'

/** Adds a line that the chosen answer does not have: travel, a crane, a survey. */
const emit = defineEmits<{ add: [line: AddedLine] }>()
const name = ref('')
const group = ref<QuotationGroup>('other')
const quantity = ref<number | undefined>(1)
const price = ref<number>()

function add(): void {
  if (name.value.trim() === '') return
  emit('add', {
    name: name.value.trim(),
    group: group.value,
    quantity: quantity.value ?? 1,
    price: price.value ?? null,
  })
  name.value = ''
  quantity.value = 1
  price.value = undefined
}
</script>

<template>
  <form
    class="grid items-end gap-3 max-md:grid-cols-2 md:grid-cols-[minmax(0,1fr)_11rem_6rem_7rem_auto]"
    @submit.prevent="add"
  >
    <label class="block max-md:col-span-2"
      ><span class="mb-0.5 block text-xs text-soft">New line</span
      ><input v-model="name" class="entry" maxlength="200" autocomplete="off" placeholder="Travel"
    /></label>
    <label class="block max-md:col-span-2"
      ><span class="mb-0.5 block text-xs text-soft">Group</span
      ><select v-model="group" class="entry">
        <option v-for="(word, key) in quotationGroups" :key="key" :value="key">{{ word }}</option>
      </select></label
    >
    <NumberEntry v-model="quantity" label="Quantity" :most="10_000" />
    <NumberEntry v-model="price" label="Price" :most="10_000_000" />
    <button type="submit" class="act-quiet" :disabled="name.trim() === ''">Add line</button>
  </form>
</template>
