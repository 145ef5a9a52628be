import tailwindcss from '@tailwindcss/vite'
import { build } from 'esbuild'
import { randomUUID } from 'node:crypto'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { bundles } from './scripts/lib/bundles.mjs'

/** Types that were found sound are checked again only where something of them changed. */
const checkedOnce = (of: string) => ({
  compilerOptions: { incremental: true, tsBuildInfoFile: `../node_modules/.cache/${of}.tsbuildinfo` },
})

/** Files of the label reader, as the build names them. */
const labelReader = '**/{tesseract-core,worker.min,zxing_reader}*'

export default defineNuxtConfig({
  compatibilityDate: '2026-11-01',
  ssr: false,
  modules: ['@pinia/nuxt', '@vite-pwa/nuxt'],
  css: ['~/assets/main.css'],
  devtools: { enabled: false },
  telemetry: false,
  experimental: {
    appManifest: false,
    // A link brings its page when it is pointed at: the list of jobs would bring the whole bench else.
    defaults: { nuxtLink: { prefetchOn: { visibility: false, interaction: true } } },
  },
  components: [{ path: '~/components', pathPrefix: false }],
  app: {
    head: {
      htmlAttrs: { lang: 'en' },
      title: 'Jovial Anchor',
      meta: [
        {
          name: 'viewport',
          content: 'width=device-width, initial-scale=1, interactive-widget=resizes-content',
        },
        { name: 'description', content: 'Does this lithium battery suit this charging system?' },
        { name: 'color-scheme', content: 'light dark' },
      ],
      link: [
        { rel: 'icon', type: 'image/svg+xml', href: '/anchor.svg' },
        { rel: 'manifest', href: '/manifest.webmanifest' },
      ],
    },
  },
  hooks: {
    // The first page loads its own code; other views load theirs.
    'build:manifest': (manifest) => {
      for (const file of Object.values(manifest)) file.prefetch = false
    },
    // Without server rendering the development server names no entry for it, and then refuses to start.
    'vite:extendConfig': (config, { isClient }) => {
      if (process.env.NODE_ENV !== 'development') return
      const input = config.build?.rollupOptions?.input
      if (isClient && typeof input === 'object' && !Array.isArray(input)) input.server ??= input.entry!
    },
    // The code of a checking thread, as one file next to the server's entry.
    'nitro:init': (nitro) => {
      nitro.hooks.hook('compiled', async ({ options }) => {
        const outfile = join(options.output.serverDir, 'judging.mjs')
        await build({
          entryPoints: [join(options.srcDir, 'judging/thread.ts')],
          outfile,
          bundle: true,
          platform: 'node',
          format: 'esm',
          // Packages that read files next to themselves stay where they are.
          external: ['pdfmake', 'fontkit', 'wawoff2'],
          logLevel: 'error',
        })
      })
    },
  },
  nitro: {
    // Letter data of the label reader: loaded on first use, and never changed under its address.
    publicAssets: [
      {
        dir: fileURLToPath(new URL('node_modules/@tesseract.js-data/eng/4.0.0_best_int', import.meta.url)),
        baseURL: '/recognition',
        maxAge: 31_536_000,
      },
    ],
    compressPublicAssets: true,
    typescript: { strict: true, tsConfig: checkedOnce('server') },
  },
  typescript: {
    strict: true,
    tsConfig: checkedOnce('app'),
    nodeTsConfig: checkedOnce('node'),
    sharedTsConfig: checkedOnce('shared'),
  },
  vite: {
    plugins: [tailwindcss()],
    $client: {
      build: { rollupOptions: { output: { manualChunks: bundles(), onlyExplicitManualChunks: true } } },
    },
  },
  // The application opens without signal: everything but the data comes from the device. The data is kept by
  // `app/device`.
  pwa: {
    // A new version waits until everything is saved: `NewVersion.vue`.
    registerType: 'prompt',
    manifest: {
      name: 'Jovial Anchor',
      short_name: 'Jovial Anchor',
      description: 'Does this lithium battery suit this charging system?',
      display: 'standalone',
      background_color: '#eef1f0',
      theme_color: '#163a46',
      icons: [
        { src: '/icon-192.png', sizes: '192x192', type: 'image/png' },
        { src: '/icon-512.png', sizes: '512x512', type: 'image/png' },
        { src: '/anchor.svg', sizes: 'any', type: 'image/svg+xml' },
      ],
    },
    workbox: {
      globPatterns: ['**/*.{js,css,woff2,svg,png,wasm}'],
      // The label reader comes to a device on first use.
      globIgnores: [labelReader],
      maximumFileSizeToCacheInBytes: 5 * 1024 * 1024,
      // The server writes the page: it belongs to this build.
      additionalManifestEntries: [{ url: '/', revision: randomUUID() }],
      navigateFallback: '/',
      navigateFallbackDenylist: [/^\/api\//],
      runtimeCaching: [
        {
          urlPattern: /\/api\/jobs\/[^/]+\/photos\/[^/]+$/,
          handler: 'CacheFirst',
          options: { cacheName: 'photos', expiration: { maxEntries: 300 } },
        },
        {
          urlPattern: /\/recognition\/|\/_nuxt\/(?:tesseract-core|worker\.min|zxing_reader)/,
          handler: 'CacheFirst',
          options: { cacheName: 'label-reader' },
        },
        { urlPattern: /\/weather\/.*\.epw$/, handler: 'CacheFirst', options: { cacheName: 'weather' } },
      ],
    },
  },
})
