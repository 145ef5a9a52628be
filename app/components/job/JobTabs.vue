<script setup lang="ts">
import { isWired } from '#core/job/wired'
import { verdictWords } from '#core/system/verdict'

/** The views of one job; each is fetched when someone reaches for it. */
const bench = useJob()
const route = useRoute()
const views = [
  ['', 'Bench'],
  ['/loads', 'Loads'],
  ['/candidates', 'Candidates'],
  ['/specify', 'Specify'],
  ['/quotation', 'Quotation'],
  ['/wiring', 'Wiring'],
  ['/prove', 'Prove'],
  ['/papers', 'Papers'],
  ['/run', 'Run'],
  ['/rules', 'Rules'],
] as const
const isShown = (path: string): boolean => {
  const address = `/jobs/${bench.id}${path}`
  return route.path === address || (path !== '' && route.path.startsWith(`${address}/`))
}
const judging = useJudging()
/** The wiring's verdict, where something of it was decided and it does not suit: a proposal is nobody's fault. */
const wiring = computed(() =>
  judging.wiring === 'suits' || !bench.document || !isWired(bench.document) ? null : judging.wiring,
)
const tabs = useTemplateRef<HTMLElement>('tabs')
/** On the phone the tabs are wider than the page: the active one scrolls into view. */
onMounted(() =>
  tabs.value?.querySelector('[aria-current="page"]')?.scrollIntoView({ block: 'nearest', inline: 'center' }),
)
const own = computed(() => Object.keys(bench.document?.rules ?? {}).length)
</script>

<template>
  <nav ref="tabs" aria-label="Views of this job" class="flex gap-x-1 max-md:w-full max-md:overflow-x-auto">
    <NuxtLink
      v-for="[path, word] in views"
      :key="path"
      :to="`/jobs/${bench.id}${path}`"
      prefetch-on="interaction"
      class="inline-flex min-h-8 shrink-0 items-center border-b-[3px] px-2 font-semibold max-md:min-h-11"
      :class="isShown(path) ? 'border-sea' : 'border-transparent text-soft hover:border-edge'"
      :aria-current="isShown(path) ? 'page' : undefined"
      >{{ word }}<span v-if="path === '/rules' && own" class="ml-1 font-normal">({{ own }} own)</span
      ><span
        v-if="path === '/wiring' && wiring"
        class="ml-1.5 inline-flex items-center"
        data-testid="wiring-tab-verdict"
        ><VerdictMark :verdict="wiring" size="small" /><span class="sr-only"
          >: {{ verdictWords[wiring] }}</span
        ></span
      ></NuxtLink
    >
  </nav>
</template>
