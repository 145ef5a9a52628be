import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'units',
          include: ['core/**/*.test.ts', 'app/**/*.test.ts', 'demo/**/*.test.ts', 'scripts/**/*.test.ts'],
          testTimeout: 120_000,
        },
      },
      {
        test: {
          name: 'server',
          include: ['server/**/*.test.ts'],
          testTimeout: 30_000,
          hookTimeout: 120_000,
          fileParallelism: false,
        },
      },
    ],
  },
})
