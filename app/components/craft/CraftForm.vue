<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { crafts } from '#core/job/document'
import { read } from '../../utils/api'
import type { CraftDraft, CustomerPage, CustomerRow } from '../../utils/craft'

/** The data of a craft: entered, or changed. */
const props = defineProps<{ draft: CraftDraft; owner?: string; button: string }>()
const emit = defineEmits<{ save: [draft: CraftDraft] }>()
const form = reactive({ ...props.draft })
const ownerWords = ref(props.owner ?? '')
const found = shallowRef<readonly CustomerRow[]>([])
const findOwners = useDebounceFn(async () => {
  form.customerId = null
  const answer = await read<CustomerPage>(`/api/customers?words=${encodeURIComponent(ownerWords.value)}`)
  found.value = answer.kind === 'ok' ? answer.data.customers.slice(0, 6) : []
  const exact = found.value.filter(({ name }) => name.toLowerCase() === ownerWords.value.trim().toLowerCase())
  if (exact.length === 1) choose(exact[0]!)
}, 200)
function choose({ id, name }: CustomerRow) {
  form.customerId = id
  ownerWords.value = name
  found.value = []
}
const isUnknownOwner = computed(() => ownerWords.value.trim() !== '' && form.customerId === null)
</script>

<template>
  <form class="grid gap-3 sm:grid-cols-2" @submit.prevent="emit('save', { ...form })">
    <label class="block sm:col-span-2"
      ><span class="mb-0.5 block text-xs text-soft">Name</span
      ><input v-model="form.name" class="entry" maxlength="200" required autocomplete="off"
    /></label>
    <label class="block"
      ><span class="mb-0.5 block text-xs text-soft">Kind</span
      ><select v-model="form.kind" class="entry">
        <option :value="null">Not chosen</option>
        <option v-for="(word, kind) in crafts" :key="kind" :value="kind">{{ word }}</option>
      </select></label
    >
    <label class="block"
      ><span class="mb-0.5 block text-xs text-soft">Registration</span
      ><input v-model="form.registration" class="entry" maxlength="100" autocomplete="off"
    /></label>
    <div class="relative">
      <label class="block"
        ><span class="mb-0.5 block text-xs text-soft">Owner</span
        ><input
          v-model="ownerWords"
          class="entry"
          maxlength="200"
          autocomplete="off"
          placeholder="Search customers"
          @input="findOwners"
      /></label>
      <ul v-if="found.length" aria-label="Customers found" class="mt-1 border border-edge bg-card">
        <li v-for="one in found" :key="one.id">
          <button
            type="button"
            class="min-h-9 w-full px-2 text-left hover:bg-paper max-md:min-h-11"
            @click="choose(one)"
          >
            {{ one.name }}<span v-if="one.contact" class="text-soft"> · {{ one.contact }}</span>
          </button>
        </li>
      </ul>
      <p v-else-if="isUnknownOwner" class="mt-1 text-xs text-changed">
        No customer has this name. Add them under Customers first.
      </p>
    </div>
    <label class="block"
      ><span class="mb-0.5 block text-xs text-soft">Place</span
      ><input v-model="form.location" class="entry" maxlength="200" autocomplete="off"
    /></label>
    <label class="block sm:col-span-2"
      ><span class="mb-0.5 block text-xs text-soft">Fleet type</span
      ><input
        v-model="form.type"
        class="entry"
        maxlength="100"
        autocomplete="off"
        placeholder="Same words for craft of this owner that are alike"
    /></label>
    <label class="block sm:col-span-2"
      ><span class="mb-0.5 block text-xs text-soft">Notes</span
      ><textarea v-model="form.notes" class="entry py-1.5" rows="3" maxlength="5000" />
    </label>
    <p class="sm:col-span-2">
      <button type="submit" class="act" :disabled="isUnknownOwner">{{ button }}</button>
    </p>
  </form>
</template>
