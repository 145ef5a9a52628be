import vue from '@vitejs/plugin-vue'
import imports from 'unimport/unplugin'
import components from 'unplugin-vue-components/vite'
import { defineConfig } from 'vitest/config'

/** Only ends a hanging test, on a slow machine too. */
const hangsMs = 900_000
const timeouts = { testTimeout: hangsMs, hookTimeout: hangsMs }

/** Given here, so that tests run before Nuxt has generated its settings. */
const esbuild = { tsconfigRaw: '{ "compilerOptions": { "target": "es2023" } }' }

/**
 * Tests that need a page or its storage: components, composables, and the device's store. These files share
 * nothing.
 */
const ofThePage = ['app/components/**/*.test.ts', 'app/composables/**/*.test.ts', 'app/device/keeper.test.ts']

export default defineConfig({
  test: {
    // All cores: of two, vitest would leave one idle.
    maxWorkers: '100%',
    tags: [{ name: 'long', description: 'Takes several seconds; `npm test` leaves it out.' }],
    projects: [
      {
        esbuild,
        test: {
          name: 'units',
          // The core is pure: one loading of it serves all files.
          isolate: false,
          include: ['core/**/*.test.ts', 'app/**/*.test.ts', 'demo/**/*.test.ts', 'scripts/**/*.test.ts'],
          exclude: ofThePage,
          ...timeouts,
        },
      },
      {
        esbuild,
        // Names that Nuxt brings in by itself.
        plugins: [
          vue(),
          components({ dirs: ['app/components'], dts: false }),
          imports.vite({
            presets: ['vue', 'pinia'],
            dirs: ['app/composables', 'app/utils', 'app/stores'],
            addons: { vueTemplate: true },
          }),
        ],
        test: { name: 'page', environment: 'happy-dom', include: ofThePage, ...timeouts },
      },
      {
        esbuild,
        test: {
          name: 'server',
          // Each file has a database of its own; loaded modules serve all.
          isolate: false,
          include: ['server/**/*.test.ts'],
          ...timeouts,
        },
      },
    ],
  },
})
