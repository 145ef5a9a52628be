<script setup lang="ts">
import { trendWords } from '#core/logbook/flags'
import { logQuantity, readingName } from '#core/logbook/quantities'
import type { Series } from '#core/logbook/series'
import { shownDay } from '../../utils/craft'

/** One quantity of a craft: its last reading, its trend in words, and its chart. */
const props = defineProps<{ series: Series }>()
const { q } = useWriting()
const quantity = computed(() => logQuantity(props.series.quantity))
const last = computed(() => props.series.readings.at(-1))
const words = computed(() => trendWords(props.series, q, Date.now()))
</script>

<template>
  <article v-if="last" class="min-w-0 border border-line bg-card p-3">
    <h3 class="text-base break-words">{{ readingName(series.quantity, series.subject) }}</h3>
    <p>
      <strong>{{ q(last.value, quantity.unit, true) }}</strong> on {{ shownDay(last.entry.at)
      }}<template v-if="series.limit?.whenNew"
        >, {{ q(series.limit.whenNew, quantity.unit) }} when new</template
      >
    </p>
    <LazySeriesChart v-if="series.readings.length > 1" :series="series" />
    <p class="text-soft">{{ words }}</p>
  </article>
</template>
