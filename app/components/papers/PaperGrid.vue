<script setup lang="ts">
import type { Block } from '#core/papers/blocks'

/** Labels or cards in their true size. */
const { block } = defineProps<{ block: Extract<Block, { kind: 'grid' }> }>()
const size = computed(() => ({
  width: `${block.grid.widthMm}mm`,
  minHeight: `${block.grid.heightMm}mm`,
}))
</script>

<template>
  <ul class="mt-2 flex flex-wrap gap-2">
    <li
      v-for="(cell, i) in block.cells"
      :key="i"
      class="flex max-w-full break-inside-avoid items-start gap-2 border border-line bg-white p-2 text-xs leading-tight text-[#1c2a30]"
      :style="size"
    >
      <div class="min-w-0 grow">
        <h3 class="text-base">{{ cell.title }}</h3>
        <p v-if="cell.about" class="text-[#525b5f]">{{ cell.about }}</p>
        <p v-for="(fact, f) in cell.facts" :key="f" class="flex gap-1.5">
          <span v-if="fact.label" class="shrink-0 text-[#525b5f]">{{ fact.label }}</span><span
            :class="{ 'ml-auto text-right font-semibold': block.grid.isCut }"
            >{{ fact.value }}</span
          >
        </p>
      </div>
      <PaperShape
        v-if="cell.code"
        :drawing="cell.code"
        label="Code of the customer’s page"
        class="h-auto w-[18mm] shrink-0"
      />
    </li>
  </ul>
</template>
