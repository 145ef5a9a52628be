<script setup lang="ts">
import type { CustomerPage, CustomerRow } from '../../utils/craft'

const rowsOf = (page: CustomerPage): readonly CustomerRow[] => page.customers
</script>

<template>
  <ListPage
    title="Customers"
    about="Each with their craft and papers."
    one="customer"
    path="/api/customers"
    to="/customers"
    :rows-of="rowsOf"
    placeholder="Search name or contact"
  >
    <template #row="{ row: customer }">
      <div class="grid grid-cols-[1fr_auto] gap-x-4">
        <div class="min-w-0">
          <h2 class="truncate text-base">
            <NuxtLink :to="`/customers/${customer.id}`" class="after:absolute after:inset-0">{{
              customer.name
            }}</NuxtLink>
          </h2>
          <p class="truncate text-xs text-soft">{{ customer.contact || 'No contact' }}</p>
        </div>
        <p class="text-right text-soft">
          {{ customer.crafts }} craft<span class="block text-xs">{{
            customer.jobs === 1 ? '1 job' : `${customer.jobs} jobs`
          }}</span>
        </p>
      </div>
    </template>
    <template #form="{ add }"><CustomerForm button="Add customer" @save="add" /></template>
  </ListPage>
</template>
