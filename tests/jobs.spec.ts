import { readFileSync } from 'node:fs'
import { expect, headline, test } from './bench-test'

const van = readFileSync(new URL('../demo/jobs/0421-rescue-van.json', import.meta.url))

test('the list shows each job with its verdict, and finds by words and verdict', async ({ page, app }) => {
  await page.goto(app.url)
  const rows = page.getByRole('list', { name: 'Jobs' }).getByRole('listitem')
  await expect(rows).toHaveCount(6)
  await expect(rows.first()).toContainText('Suits after 3 changes')
  await page.getByLabel('Search jobs').fill('rescue hollin')
  await expect(rows).toHaveCount(1)
  await page.getByLabel('Search jobs').fill('zeppelin')
  await expect(page.getByText('No job found')).toBeVisible()
  await page.getByLabel('Search jobs').fill('')
  await page.getByLabel('Verdict').selectOption('measure-first')
  await expect(rows).toHaveCount(1)
  await rows.getByRole('link').click()
  await expect(headline(page)).toHaveText('Measure first')
})

test('a long list keeps its rows while one of its jobs is being checked @long', async ({ page, app }) => {
  await app.db.sql`
    insert into job (workshop_id, document, number, name, customer, craft, stage, verdict, headline, reason, search, updated_by, version, judged_version, judged_shop)
    select workshop_id, document, (2000 + n)::text, name, customer, craft, stage, verdict, headline, reason, search, updated_by, version,
      case when n = 1 then 0 else judged_version end, judged_shop
    from generate_series(1, 150) n join job on number = '0433'`
  // The background check cannot write this job's verdict: it stays outdated.
  const own = await app.db.sql.reserve()
  await own`begin`
  await own`set local idle_in_transaction_session_timeout = 0`
  await own`select 1 from job where number = '2001' for update`
  await page.goto(app.url)
  const rows = page.getByRole('list', { name: 'Jobs' }).getByRole('listitem')
  await expect(rows).toHaveCount(100)
  await page.getByRole('button', { name: 'Show more' }).click()
  await expect(rows).toHaveCount(156)
  await expect(page.getByText('Being checked').first()).toBeVisible()
  // Asked again twice over.
  for (let i = 0; i < 4; i++) await page.waitForResponse((response) => response.url().includes('/api/jobs?'))
  await expect(rows).toHaveCount(156)
  await own`rollback`
  own.release()
})

test('a job file goes out and comes in again', async ({ page, app }) => {
  await page.goto(await app.job('0421'))
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Job file' }).click(),
  ])
  expect(download.suggestedFilename()).toBe('job-0421.json')
  const file = await download.path()
  expect(readFileSync(file, 'utf8')).toBe(van.toString())
  await page.goto(app.url)
  await page.getByLabel('Import job file').setInputFiles(file)
  await expect(headline(page)).toHaveText('Does not suit')
})

const bad: readonly (readonly [name: string, file: string, content: Buffer, words: RegExp])[] = [
  [
    'a missing field',
    'job.json',
    Buffer.from(van.toString().replace('"houseBank"', '"houzeBank"')),
    /houseBank is missing/,
  ],
  [
    'a wrong type',
    'job.json',
    Buffer.from(van.toString().replace('"value": -18', '"value": "cold"')),
    /place\/coldestC must be a number/,
  ],
  [
    '1e999',
    'job.json',
    Buffer.from(van.toString().replace('"value": 160', '"value": 1e999')),
    /candidate\/ahEach is too large a number/,
  ],
  ['a file of 9 MB', 'job.json', Buffer.alloc(9 * 1024 * 1024, 32), /is 9 MB\. A job file has at most 2 MB/],
  [
    'a PNG renamed',
    'photo.json',
    readFileSync(new URL('./pixel.png', import.meta.url)),
    /This is a picture \(PNG\), unlike its name/,
  ],
  ['half a file', 'job.json', van.subarray(0, 400), /Line \d+: This is not a job file/],
]
for (const [name, file, content, words] of bad) {
  test(`a job file with ${name} is refused with words @long`, async ({ page, app }) => {
    await page.goto(app.url)
    await page
      .getByLabel('Import job file')
      .setInputFiles({ name: file, mimeType: 'application/json', buffer: content })
    await expect(page.getByRole('alert')).toContainText(words)
    await expect(page.getByRole('alert')).toContainText('Nothing was loaded.')
    await expect(page.getByRole('list', { name: 'Jobs' }).getByRole('listitem')).toHaveCount(6)
  })
}

test('markup in names is shown as text everywhere @long', async ({ page, app }) => {
  const markup = '<img src=x onerror="document.title=1">'
  await page.goto(app.url)
  await page.getByLabel('Import job file').setInputFiles({
    name: 'job.json',
    mimeType: 'application/json',
    buffer: Buffer.from(
      van
        .toString()
        .replace('Ptarmigan Two', JSON.stringify(markup).slice(1, -1))
        .replace('"Station charger"', '"<b>bold</b> charger"'),
    ),
  })
  await expect(page.getByRole('heading', { name: '<b>bold</b> charger', exact: true })).toBeVisible()
  await page.getByRole('link', { name: 'Papers', exact: true }).click()
  await page.locator('[data-paper=summary]').getByRole('link', { name: 'Preview' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(`Lithium battery for ${markup}`)
  await page.goto(app.url)
  await expect(page.getByRole('link', { name: markup })).toBeVisible()
  expect(await page.title()).toBe('Jobs · Jovial Anchor')
})

test('the first page needs less than 300 kB of compressed JavaScript', async ({ page, app }) => {
  const sizes: number[] = []
  page.on('response', async (response) => {
    if (response.request().resourceType() === 'script')
      sizes.push((await response.request().sizes()).responseBodySize)
  })
  await page.goto(await app.job('0417'))
  await expect(headline(page)).toBeVisible()
  await page.waitForLoadState('networkidle')
  const total = sizes.reduce((sum, size) => sum + size, 0)
  test.info().annotations.push({ type: 'JavaScript', description: `${Math.round(total / 1000)} kB` })
  expect(total).toBeGreaterThan(20_000)
  expect(total).toBeLessThan(300_000)
})

test('nothing is fetched from anywhere else', async ({ page, app }) => {
  const elsewhere: string[] = []
  page.on('request', (request) => {
    if (!request.url().startsWith(app.url) && !/^(data|blob):/.test(request.url()))
      elsewhere.push(request.url())
  })
  for (const address of [app.url, await app.job('0417'), `${await app.job('0417')}/papers/summary`]) {
    await page.goto(address)
    await page.waitForLoadState('networkidle')
  }
  expect(elsewhere).toEqual([])
})

test('a job is deleted once its name is typed, and brought back', async ({ page, app }) => {
  await page.goto(await app.job('0424'))
  await page.getByRole('button', { name: 'Delete', exact: true }).click()
  const dialog = page.getByRole('dialog', { name: 'Delete this job' })
  await dialog.getByLabel(/^Type .* to delete it/).fill('The Quill')
  await expect(dialog.getByRole('button', { name: 'Delete job' })).toBeDisabled()
  await dialog.getByLabel(/^Type .* to delete it/).fill('The Quillback')
  await dialog.getByRole('button', { name: 'Delete job' }).click()
  const jobs = page.getByRole('list', { name: 'Jobs' })
  await expect(jobs).toBeVisible()
  await expect(jobs).not.toContainText('The Quillback')
  await page.getByLabel('Stage').selectOption('deleted')
  await expect(jobs).toContainText('The Quillback')
  await page.getByRole('button', { name: 'Restore The Quillback' }).click()
  await page.getByLabel('Stage').selectOption('')
  await expect(jobs).toContainText('The Quillback')
})
