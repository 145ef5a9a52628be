import { defineConfig } from '@playwright/test'

export const chromiumArgs = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
]
/** A page's collecting and compiling next to it in threads costs more than it saves where all cores are taken. */
const oneThread = '--js-flags=--single-threaded'

// A failure is looked into with `--trace on`; recording one all along takes a quarter of the time.
export default defineConfig({
  testDir: 'tests',
  // More than two cores: a good deal of a test is waiting.
  workers: 3,
  fullyParallel: true,
  // Time limits only end a hanging test, on a slow machine too.
  timeout: 900_000,
  retries: 0,
  globalSetup: './tests/template.ts',
  expect: { timeout: 240_000 },
  reporter: [['line'], ['json', { outputFile: 'test-results/browser.json' }]],
  use: {
    // A missing label fails in five minutes, not in ten. Slow steps on a slow machine have the time.
    actionTimeout: 300_000,
    viewport: { width: 1280, height: 800 },
    // Only the tests of work without signal need one. Each context would fetch the whole application for it.
    serviceWorkers: 'block',
    launchOptions: { executablePath: '/usr/bin/chromium', args: [...chromiumArgs, oneThread] },
  },
})
