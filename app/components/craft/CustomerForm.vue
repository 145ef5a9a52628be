<script setup lang="ts">
import type { CustomerRow } from '../../utils/craft'

/** Name, contact and notes of a customer. */
const props = defineProps<{ customer?: CustomerRow; button: string }>()
defineEmits<{ save: [entry: { name: string; contact: string; notes: string }] }>()
const form = reactive({
  name: props.customer?.name ?? '',
  contact: props.customer?.contact ?? '',
  notes: props.customer?.notes ?? '',
})
</script>

<template>
  <form class="grid gap-3" @submit.prevent="$emit('save', { ...form })">
    <label class="block"
      ><span class="mb-0.5 block text-xs text-soft">Name</span
      ><input v-model="form.name" class="entry" maxlength="200" required autocomplete="off"
    /></label>
    <label class="block"
      ><span class="mb-0.5 block text-xs text-soft">Contact</span
      ><input
        v-model="form.contact"
        class="entry"
        maxlength="200"
        autocomplete="off"
        placeholder="Phone or e-mail"
    /></label>
    <label class="block"
      ><span class="mb-0.5 block text-xs text-soft">Notes</span
      ><textarea v-model="form.notes" class="entry py-1.5" rows="3" maxlength="5000" />
    </label>
    <p>
      <button type="submit" class="act">{{ button }}</button>
    </p>
  </form>
</template>
