<script setup lang="ts">
import type { Stack, StackRow } from '#core/compare/instruments'

/** The limits of one lane's current, to scale. The smallest governs, is outlined and named. */
const { q } = useWriting()
const props = defineProps<{ stack: Stack; name: string }>()
const width = (amps: number): string => `${Math.min(100, (amps / props.stack.scaleA) * 100)}%`
const tone: Record<StackRow['kind'], string> = { battery: 'stack-battery', source: 'bg-sea', limit: 'bg-bar' }
const governing = computed(() =>
  props.stack.governs === null ? null : props.stack.rows[props.stack.governs]!.label,
)
</script>

<template>
  <table class="w-full text-xs">
    <caption class="sr-only">
      Currents of
      {{
        name
      }}
    </caption>
    <tbody>
      <tr v-for="(row, i) in stack.rows" :key="i" :class="i === stack.governs ? 'font-bold' : 'font-normal'">
        <th scope="row" class="w-px py-px pr-2 text-left whitespace-nowrap [font-weight:inherit]">
          {{ row.label }}
        </th>
        <td class="py-px" aria-hidden="true">
          <div class="h-2.5 bg-line/60" :class="i === stack.governs && 'outline-2 outline-ink'">
            <div
              v-if="row.amps !== null"
              class="h-full"
              :class="tone[row.kind]"
              :style="{ width: width(row.amps) }"
            />
          </div>
        </td>
        <td class="w-px py-px pl-2 text-right whitespace-nowrap" :class="row.amps === null && 'text-measure'">
          {{ row.amps === null ? 'unknown' : q(row.amps, 'A') }}
        </td>
      </tr>
    </tbody>
    <tfoot>
      <tr>
        <td colspan="3" class="pt-1 text-soft">
          <template v-if="governing"
            >limited by <strong class="text-ink">{{ governing }}</strong></template
          ><template v-else>no values yet</template>
        </td>
      </tr>
    </tfoot>
  </table>
</template>

<style scoped>
.stack-battery {
  background: repeating-linear-gradient(-45deg, var(--sea) 0 3px, var(--window) 3px 6px);
}
</style>
