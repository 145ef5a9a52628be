import { readdirSync, readFileSync } from 'node:fs'
import { gzipSync } from 'node:zlib'
import type { Demo } from '../lib/demo'

const scripts = new URL('../../.output/public/_nuxt/', import.meta.url)

/** Size of the JavaScript, compressed: for the list of jobs, which is the first page, and in total. */
export async function benchSize({ url, browser }: Demo): Promise<void> {
  const page = await browser.newPage()
  const asked = new Set<string>()
  page.on('response', (response) => {
    const name = /\/_nuxt\/([\w.-]+\.js)$/.exec(response.url())?.[1]
    if (name) asked.add(name)
  })
  await page.goto(url, { waitUntil: 'networkidle' })
  await page.close()
  const kB = (names: readonly string[]): number => {
    const sizes = names.map((name) => gzipSync(readFileSync(new URL(name, scripts)), { level: 9 }).length)
    return Math.round(sizes.reduce((sum, size) => sum + size, 0) / 1000)
  }
  const all = readdirSync(scripts).filter((name) => name.endsWith('.js'))
  console.log(
    `JavaScript, gzip: ${kB([...asked])} kB in ${asked.size} files for the first page, ${kB(all)} kB in ${all.length} files in all`,
  )
}
