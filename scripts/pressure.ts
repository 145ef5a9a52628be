// npm run pressure [-- KILLS]: first 500 writers at once save the same version, twenty times: each time one of them
// wins and the others get a conflict. Then the database is killed again and again under 16 clients: after each kill
// as many requests at once as there are connections must be answered within 10 s. No request may wait for ever, and
// nothing may be thrown outside a request.
import { setTimeout as pause } from 'node:timers/promises'
import { withField } from '#core/job/document'
import type { JobPage } from '../server/repositories/job-list'
import type { StoredJob } from '../server/repositories/jobs'
import { Application } from './lib/application'

const [kills = 30] = process.argv.slice(2).map(Number)
const clients = 16
const connections = 8
/** Longest time in which all connections serve again, and in which a request has an answer of some kind, ms. */
const backMs = 10_000
const answerMs = 60_000

const application = await Application.begin('pressure')
const { jobs } = await application.insist<JobPage>('/api/jobs')
const statuses: Record<string, number> = {}
let longestMs = 0
let isOver = false

/** Sends a request and counts the result. */
async function counted<T>(method: string, path: string, body?: unknown) {
  const began = performance.now()
  const answer = await application.ask<T>(method, path, body, answerMs)
  longestMs = Math.max(longestMs, performance.now() - began)
  const status = answer?.status ?? 'none'
  statuses[status] = (statuses[status] ?? 0) + 1
  return answer
}

async function client(n: number): Promise<void> {
  const path = `/api/jobs/${jobs[n % jobs.length]!.id}`
  for (let i = 0; !isOver; i++) {
    const read = await counted<StoredJob>('GET', path)
    if (read?.status !== 200) await pause(50)
    else {
      const document = withField(read.data.document, 'place/coldestC', { value: i % 20, how: 'measured' })
      await counted('PUT', path, { version: read.data.version, who: `Client ${n} ${i}`, document })
    }
  }
}

/** Waits until as many requests at once as there are connections are answered, ms. */
async function allBack(): Promise<number> {
  const began = performance.now()
  for (;;) {
    const answers = await Promise.all(
      Array.from({ length: connections }, () => application.ask('GET', '/api/jobs', undefined, backMs)),
    )
    if (answers.every((answer) => answer?.status === 200)) return performance.now() - began
    if (performance.now() - began > 6 * backMs) return Infinity
    await pause(50)
  }
}

const writers = 500
const rounds = 20
/** Rounds in which the writers were not answered by one 200 and a 409 each. */
let badRounds = 0
for (let round = 0; round < rounds; round++) {
  const path = `/api/jobs/${jobs[0]!.id}`
  const { version, document } = await application.insist<StoredJob>(path)
  const answers = await Promise.all(
    Array.from({ length: writers }, (_, n) => {
      const own = withField(document, 'place/coldestC', {
        value: (n % 40) - 20 + (round + 1) / 100,
        how: 'measured',
      })
      return application.ask('PUT', path, { version, who: `Writer ${n}`, document: own }, answerMs)
    }),
  )
  const count = (status: number) => answers.filter((answer) => answer?.status === status).length
  if (count(200) !== 1 || count(409) !== writers - 1) badRounds++
}
console.log(`${writers} writers on one version, ${rounds} rounds: ${badRounds} rounds without one winner`)

const using = Array.from({ length: clients }, (_, n) => client(n))
const times: number[] = []
for (let kill = 0; kill < kills; kill++) {
  await pause(500 + (kill % 5) * 300)
  application.killDatabase()
  times.push(await allBack())
}
isOver = true
await Promise.all(using)
const thrown = application.errors.filter((text) =>
  /TypeError|Cannot (read|set) properties|UNSAFE|ended by itself \(/.test(text),
)
const slow = times.filter((ms) => ms > backMs)
console.log(
  `${kills} kills under ${clients} clients: all ${connections} connections back after ` +
    `${Math.round(Math.max(...times))} ms at most; longest request ${Math.round(longestMs)} ms; ` +
    `answers ${JSON.stringify(statuses)}; ${thrown.length} thrown outside a request`,
)
for (const text of thrown) console.error(text)
await application.end()
const isGood =
  badRounds === 0 && slow.length === 0 && thrown.length === 0 && !statuses['500'] && longestMs < answerMs
process.exit(isGood ? 0 : 1)
