import type { Page } from '@playwright/test'

/** Waits until this device has the application and the demo jobs. */
export async function readyForOffline(page: Page): Promise<void> {
  await page.evaluate(async () => {
    await navigator.serviceWorker.ready
  })
  await page.waitForFunction(
    () =>
      new Promise((resolve) => {
        const opening = indexedDB.open('jovial-anchor')
        opening.onsuccess = () => {
          const database = opening.result
          if (!database.objectStoreNames.contains('jobs')) return resolve(false)
          const counting = database.transaction('jobs').objectStore('jobs').count()
          counting.onsuccess = () => {
            database.close()
            resolve(counting.result >= 6)
          }
        }
      }),
  )
}

/** On a phone the walk-round is one of three columns. */
export const atPlace = (address: string): string => `${address}?column=walk&station=place`
