<script setup lang="ts">
import { crafts } from '#core/job/document'
import { draftOfCraft, type CraftPage, type CraftRow } from '../../utils/craft'
import { ago } from '../../utils/dates'

const rowsOf = (page: CraftPage): readonly CraftRow[] => page.crafts
</script>

<template>
  <ListPage
    title="Craft"
    about="Vessels, vehicles, trailers and cabins with their jobs and logbooks."
    one="craft"
    path="/api/craft"
    to="/craft"
    :rows-of="rowsOf"
    placeholder="Search name, registration, place, owner"
  >
    <template #row="{ row: craft }">
      <div class="grid grid-cols-[1fr_auto] gap-x-4 md:grid-cols-[16rem_1fr_9rem_8rem]">
        <div class="min-w-0">
          <h2 class="truncate text-base">
            <NuxtLink :to="`/craft/${craft.id}`" class="after:absolute after:inset-0">{{
              craft.name || 'Unnamed craft'
            }}</NuxtLink>
          </h2>
          <p class="truncate text-xs text-soft">
            {{ [craft.kind && crafts[craft.kind], craft.registration].filter(Boolean).join(' · ') }}
          </p>
        </div>
        <p class="min-w-0 truncate max-md:col-start-1 max-md:row-start-2 max-md:text-xs">
          {{ craft.customer || 'No owner'
          }}<span v-if="craft.location" class="text-soft"> · {{ craft.location }}</span>
        </p>
        <p class="text-soft max-md:col-start-2 max-md:row-start-1">
          {{ craft.jobs === 1 ? '1 job' : `${craft.jobs} jobs` }}
        </p>
        <p class="text-xs text-soft max-md:col-start-2 max-md:row-start-2">{{ ago(craft.lastAt) }}</p>
      </div>
    </template>
    <template #form="{ add }"><CraftForm :draft="draftOfCraft()" button="Add craft" @save="add" /></template>
  </ListPage>
</template>
