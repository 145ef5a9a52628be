import { defineConfig } from 'vitest/config'

/** Only ends a test that hangs, on a slow machine too. */
const hangsMs = 900_000

/** Given here, so that tests run before Nuxt has generated its settings. */
const esbuild = { tsconfigRaw: '{ "compilerOptions": { "target": "es2023" } }' }

export default defineConfig({
  test: {
    // All cores: of two, vitest would leave one idle.
    maxWorkers: '100%',
    projects: [
      {
        esbuild,
        test: {
          name: 'units',
          // The core is pure: one loading of it serves all files.
          isolate: false,
          include: ['core/**/*.test.ts', 'app/**/*.test.ts', 'demo/**/*.test.ts', 'scripts/**/*.test.ts'],
          testTimeout: hangsMs,
          hookTimeout: hangsMs,
        },
      },
      {
        esbuild,
        test: {
          name: 'server',
          // Each file has a database of its own; what is loaded serves all.
          isolate: false,
          include: ['server/**/*.test.ts'],
          testTimeout: hangsMs,
          hookTimeout: hangsMs,
        },
      },
    ],
  },
})
