import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    // All cores: of two, vitest would leave one idle.
    maxWorkers: '100%',
    projects: [
      {
        test: {
          name: 'units',
          // The core is pure: one loading of it serves all files.
          isolate: false,
          include: ['core/**/*.test.ts', 'app/**/*.test.ts', 'demo/**/*.test.ts', 'scripts/**/*.test.ts'],
          testTimeout: 120_000,
        },
      },
      {
        test: {
          name: 'server',
          // Each file has a database of its own; what is loaded serves all.
          isolate: false,
          include: ['server/**/*.test.ts'],
          testTimeout: 30_000,
          hookTimeout: 120_000,
        },
      },
    ],
  },
})
