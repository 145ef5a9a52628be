<script setup lang="ts">
import { useColorMode } from '@vueuse/core'

const { store: setting } = useColorMode({
  attribute: 'data-theme',
  storageKey: 'jovial-anchor.theme',
  disableTransition: true,
})
const route = useRoute()
const session = useAccount()
const views = computed(() =>
  session.mustSignIn
    ? ([['/help', 'Help']] as const)
    : ([
        ['/today', 'Today'],
        ['/', 'Jobs'],
        ['/craft', 'Craft'],
        ['/shelf', 'Shelf'],
        ['/rules', 'Shop rules'],
        ['/people', 'People'],
        ['/help', 'Help'],
        ...(session.canSwitch ? [['/sign-in', 'Switch person'] as const] : []),
      ] as const),
)
/** The lists of craft, customers and reminders share a place; a craft belongs to it too. */
const ofCraft = /^\/(craft|customers|reminders|learnt)(\/|$)/
const isShown = (path: string): boolean =>
  path === '/craft' ? ofCraft.test(route.path) : route.path === path
const nextMode = { auto: 'light', light: 'dark', dark: 'auto' } as const
const modeWord = { auto: 'as device', light: 'light', dark: 'dark' } as const
const chosen = computed(() => (setting.value in nextMode ? (setting.value as keyof typeof nextMode) : 'auto'))
</script>

<template>
  <div class="flex min-h-dvh flex-col md:flex-row print:block">
    <a href="#main" class="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-card focus:p-3"
      >Skip to content</a
    >
    <nav
      v-if="route.path !== '/customer'"
      aria-label="Main"
      class="flex shrink-0 items-center gap-1 overflow-x-auto bg-harbour text-on-harbour md:sticky md:top-0 md:h-dvh md:w-16 md:flex-col md:py-3 print:hidden"
    >
      <NuxtLink
        to="/"
        aria-label="Jovial Anchor, all jobs"
        class="grid size-11 place-items-center text-lamp md:mb-2"
        ><AnchorMark class="size-8"
      /></NuxtLink>
      <NuxtLink
        v-for="[path, word] in views"
        :key="path"
        :to="path"
        class="grid min-h-11 place-items-center rounded-sm px-3 text-center text-xs md:w-full md:px-0"
        :class="[
          isShown(path) ? 'text-lamp' : 'hover:text-lamp',
          // A phone is one person's, and has no room for it.
          path === '/sign-in' ? 'max-md:hidden' : '',
        ]"
        >{{ word }}</NuxtLink
      >
      <button
        type="button"
        class="ml-auto grid min-h-11 place-items-center px-3 text-center text-xs hover:text-lamp md:mt-auto md:ml-0 md:w-full md:px-0"
        :aria-label="`Theme: ${modeWord[chosen]}. Change it`"
        @click="setting = nextMode[chosen]"
      >
        <span
          ><span class="max-md:hidden">Theme<br /></span>{{ modeWord[chosen] }}</span
        >
      </button>
    </nav>
    <div id="main" class="min-w-0 grow" tabindex="-1"><NewVersion /><NuxtPage /></div>
  </div>
</template>
