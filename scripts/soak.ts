// npm run soak [-- SAVES [SEED]]: two writers use the application and a shop changes its rules, while its server,
// its database, `npm start` and all three are killed at random. In the end each acknowledged save must exist, each
// list must equal a fresh check, and each start must have recovered without help.
import { setTimeout as pause } from 'node:timers/promises'
import { withField } from '#core/job/document'
import { judgeJob } from '#core/verdict/job'
import type { JobPage } from '../server/repositories/job-list'
import type { StoredJob } from '../server/repositories/jobs'
import type { ShopSettings } from '../server/repositories/shop'
import { Application } from './lib/application'
import { chanceOf } from './lib/hostile'

const [wanted = 1000, seed = Date.now() % 1_000_000] = process.argv.slice(2).map(Number)
const chance = chanceOf(seed)
const application = await Application.begin('soak')
const fields = ['place/coldestC', 'place/hottestC'] as const

interface Acknowledged {
  readonly job: string
  readonly version: number
  readonly path: string
  readonly value: number
}
const acknowledged: Acknowledged[] = []
const kills: Record<string, number> = {}
const killed = (): number => Object.values(kills).reduce((sum, count) => sum + count, 0)
/** It goes on until there were this many of each: use that nothing disturbed would show nothing. */
const fewestKills = Math.max(4, wanted / 20)
const fewestShopSaves = 2
let shopSaves = 0
let isOver = false

/** Share of the kills that wait until the last one is got over. */
const startedFirst = 0.7
/**
 * After the fewest kills, each further one waits for this many saves: a slow machine would save nothing otherwise.
 */
const savesBetweenKills = 3

async function killing(): Promise<void> {
  const victims = {
    server: () => application.killServer(),
    database: () => application.killDatabase(),
    start: () => application.killStart(),
    'all three': async () => {
      application.killServer()
      application.killDatabase()
      await application.killStart()
    },
  }
  const names = Object.keys(victims) as (keyof typeof victims)[]
  while (!isOver) {
    await pause(400 + chance() * 2500)
    // Now and then while it starts; mostly once it is up, or on a slow machine nothing would ever be saved.
    if (chance() < startedFirst) await application.insist('/api/shop')
    const saved = acknowledged.length
    while (!isOver && killed() >= fewestKills && acknowledged.length < saved + savesBetweenKills)
      await pause(200)
    if (isOver) return
    const name = names[Math.floor(chance() * names.length)]!
    kills[name] = (kills[name] ?? 0) + 1
    await victims[name]()
    application.startIfDown()
  }
}

const isWanted = (): boolean =>
  acknowledged.length < wanted || killed() < fewestKills || shopSaves < fewestShopSaves

async function writing(who: string, id: string): Promise<void> {
  for (let i = 0; isWanted(); i++) {
    const read = await application.ask<StoredJob>('GET', `/api/jobs/${id}`)
    if (read?.status !== 200) {
      await pause(200)
      continue
    }
    const path = fields[i % fields.length]!
    await pause(chance() * 60)
    const value = Math.round(chance() * 400) / 10 - (path === fields[0] ? 30 : 0)
    const document = withField(read.data.document, path, { value, how: 'measured' })
    // Under a name of its own each, so that no two are taken for one burst of typing.
    const body = { version: read.data.version, who: `${who} ${i}`, document }
    const saved = await application.ask<StoredJob>('PUT', `/api/jobs/${id}`, body)
    if (saved?.status === 200 && saved.data.version > read.data.version)
      acknowledged.push({ job: id, version: saved.data.version, path, value })
  }
}

async function ruling(): Promise<void> {
  while (!isOver) {
    await pause(500 + chance() * 1000)
    const shop = await application.ask<ShopSettings>('GET', '/api/shop')
    if (shop?.status !== 200) continue
    const rules = {
      chargerSchool: chance() < 0.5 ? 'replace' : 'window',
      lowSoc: 10 + Math.round(chance() * 30),
    }
    if ((await application.ask('PUT', '/api/shop', { ...shop.data, rules }))?.status === 200) shopSaves++
  }
}

/** Acknowledged saves of a job that its history does not hold. */
async function lostOf(id: string): Promise<readonly Acknowledged[]> {
  const entries = await application.historyOf(id)
  return acknowledged
    .filter(({ job }) => job === id)
    .filter(
      ({ version, path, value }) =>
        !entries.some(
          (entry) =>
            entry.version === version &&
            entry.changes?.some(
              (change) =>
                change.path === path && (change.after as { value?: unknown } | undefined)?.value === value,
            ),
        ),
    )
}

/** Jobs whose list shows another verdict than a checking again. */
async function wrongVerdicts(): Promise<readonly string[]> {
  for (let tries = 0; tries < 240; tries++) {
    const { waiting } = await application.insist<{ waiting: number }>('/api/shop/judging')
    if (waiting === 0) break
    await pause(250)
  }
  const { rules, units } = await application.insist<ShopSettings>('/api/shop')
  const { jobs } = await application.insist<JobPage>('/api/jobs')
  const judged = await Promise.all(
    jobs.map(async ({ id, number, verdict, headline }) => {
      const { document } = await application.insist<StoredJob>(`/api/jobs/${id}`)
      const { found: fresh } = judgeJob(document, { rules, units })
      return fresh.verdict === verdict && fresh.headline === headline
        ? null
        : `${number}: ${headline}, now ${fresh.headline}`
    }),
  )
  return judged.filter((words) => words !== null)
}

const { jobs } = await application.insist<JobPage>('/api/jobs')
const began = Date.now()
const background = [killing(), ruling()]
await Promise.all([writing('Bench laptop', jobs[0]!.id), writing('Phone', jobs[1]!.id)])
isOver = true
await Promise.all(background)
const lost = [...(await lostOf(jobs[0]!.id)), ...(await lostOf(jobs[1]!.id))]
const wrong = await wrongVerdicts()
console.log(
  `${acknowledged.length} acknowledged saves and ${shopSaves} of the shop in ${Math.round((Date.now() - began) / 1000)} s, ` +
    `${killed()} kills (${Object.entries(kills)
      .map(([name, count]) => `${count} ${name}`)
      .join(
        ', ',
      )}), seed ${seed}: ${lost.length} lost, ${wrong.length} verdicts of ${jobs.length} lists wrong`,
)
for (const one of lost) console.error(`Lost: version ${one.version} of ${one.job}, ${one.path} ${one.value}`)
// Messages of `npm start` itself. Requests that meet the database while it is down, or while another program has
// its port, fail and are repeated.
const problems = application.errors.filter((text) => /^[A-Z][\w ]* failed:|did not answer/m.test(text))
for (const words of [...wrong, ...problems]) console.error(words)
await application.end()
process.exit(lost.length + wrong.length + problems.length === 0 ? 0 : 1)
