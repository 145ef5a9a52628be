<script setup lang="ts">
import type { ShownTest } from '#core/diagnosis/shown'

/** Things to look at in one go, by place. A line that differs leads to its own test. */
const props = defineProps<{ list: ShownTest['list']; titleOf: (test: string) => string }>()
const emit = defineEmits<{ single: [test: string] }>()
const places = computed(() =>
  [...new Set(props.list.map(({ place }) => place))].map((place) => ({
    place,
    items: props.list.filter((item) => item.place === place),
  })),
)
/** The open item that can differ in several ways. */
const open = ref('')
function differs({ words, tests }: ShownTest['list'][number]) {
  if (tests.length === 1) emit('single', tests[0]!)
  else open.value = open.value === words ? '' : words
}
</script>

<template>
  <div
    class="mt-2 max-h-[46dvh] overflow-auto border border-line bg-card px-3 py-1"
    tabindex="0"
    role="region"
    aria-label="Walk-round"
    data-testid="walk"
  >
    <section v-for="{ place, items } in places" :key="place" :aria-label="place">
      <h3 class="mt-1.5 font-semibold">{{ place }}</h3>
      <ul>
        <li v-for="item in items" :key="item.words" class="border-b border-line py-0.5 text-sm">
          <div class="flex items-center gap-2">
            <span class="flex-1">{{ item.words }}</span>
            <button
              v-if="item.tests.length"
              type="button"
              class="shrink-0 px-1 underline max-md:min-h-11 max-md:px-2"
              :aria-label="`Differs: ${item.words}`"
              :aria-expanded="item.tests.length > 1 ? open === item.words : undefined"
              @click="differs(item)"
            >
              Differs
            </button>
          </div>
          <div v-if="open === item.words" class="flex flex-wrap gap-2 pb-1">
            <button
              v-for="id in item.tests"
              :key="id"
              type="button"
              class="act-quiet max-md:min-h-11"
              @click="emit('single', id)"
            >
              {{ titleOf(id) }}
            </button>
          </div>
        </li>
      </ul>
    </section>
  </div>
</template>
