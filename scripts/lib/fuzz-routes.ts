import { readFileSync, readdirSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { setTimeout as pause } from 'node:timers/promises'
import { freshDatabase, startServer } from '../../tests/harness'
import { chanceOf, hostile, hostileWord, routesIn, spoilt, spoiltText, type Route } from './hostile'

export interface Fuzzed {
  readonly routes: number
  /** Answers by their status; `none` where there was none. */
  readonly byStatus: Readonly<Record<string, number>>
  /** Slowest answer once it was warm; and of those before, when every paper is made for the first time. */
  readonly slowestMs: number
  readonly slowestColdMs: number
  /** Memory of the server once it was warm, and in the end, MB. */
  readonly memoryMb: readonly [number, number]
}

const root = fileURLToPath(new URL('../..', import.meta.url))
const atOnce = 12
/** Requests after which a server's memory is steady. */
const warmUp = 3000

/** Memory of a process, MB. */
const memoryOf = (pid: number): number =>
  (Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1]) || 0) / 1024

/** A stream of events, which never ends by itself. */
const isStream = ({ path }: Route): boolean => path.includes('instrument')

/** Sends hostile requests to a server of its own, and prints the unexpected answers. */
export async function fuzzRoutes(tries: number, seed: number): Promise<Fuzzed> {
  const db = await freshDatabase()
  const server = await startServer(db.applicationUrl)
  const chance = chanceOf(seed)
  const routes = routesIn(`${root}server/api`).filter((route) => !isStream(route))
  const jobs = readdirSync(`${root}demo/jobs`).map((name) =>
    JSON.parse(readFileSync(`${root}demo/jobs/${name}`, 'utf8')),
  ) as Record<string, unknown>[]
  const ids = (await db.sql<{ id: string }[]>`select job_id as id from job`).map(({ id }) => id)
  const pick = <T>(list: readonly T[]): T => list[Math.floor(chance() * list.length)]!
  const word = (): string =>
    encodeURIComponent(
      hostileWord(chance)
        .slice(0, 400)
        .replace(/[\uD800-\uDFFF]/g, ''),
    )
  const known: Readonly<Record<string, () => string>> = {
    id: () => pick(ids),
    kind: () => pick(['batteries', 'chargers', 'fuses']),
    code: () => pick(['BRI-200H', 'X-1']),
    count: () => pick(['1', '2']),
    photo: () => pick(ids),
  }
  const pathOf = ({ path }: Route): string => {
    const filled = path.replace(/\[(\.\.\.)?(\w*)\]/g, (_, _rest, name: string) =>
      chance() < 0.6 ? (known[name]?.() ?? word()) : word(),
    )
    const query = Array.from(
      { length: Math.floor(chance() * 4) },
      () =>
        `${pick(['who', 'words', 'kind', 'after', 'version', 'take', 'codes', 'station', 'name', 'before'])}=${chance() < 0.4 ? 'Test' : word()}`,
    )
    return query.length > 0 ? `${filled}?${query.join('&')}` : filled
  }
  const bodies: readonly (() => unknown)[] = [
    () => ({ version: 1, who: 'Test', document: spoilt(pick(jobs), chance) }),
    () => spoilt({ version: 1, who: 'Test', document: pick(jobs) }, chance),
    () =>
      spoilt(
        { name: 'Slip', rules: { lowSoc: 20 }, units: { system: 'metric', currency: '€' }, version: 1 },
        chance,
      ),
    () => spoilt({ version: 0, who: 'Test', name: 'Part', maker: '', values: { ratedA: 20 } }, chance),
    () => spoilt({ who: 'Test', typical: 'bus' }, chance),
    () => spoilt({ rules: {}, after: null }, chance),
    () => hostile(chance),
  ]
  const bodyOf = (): string | Uint8Array => {
    const how = chance()
    if (how < 0.7) return JSON.stringify(pick(bodies)()) ?? ''
    if (how < 0.85) return spoiltText(JSON.stringify(pick(jobs)), chance)
    if (how < 0.95) return spoiltText('code,name,ratedA (A)\nA-1,One,20\nA-2,Two,30\n', chance)
    return Uint8Array.from({ length: Math.floor(chance() * 2000) }, () => Math.floor(chance() * 256))
  }
  const types = [
    'application/json',
    'application/json',
    'application/json',
    'text/csv',
    'image/png',
    'text/plain',
    '',
  ]

  const byStatus: Record<string, number> = {}
  const slowest = { cold: 0, warm: 0 }
  let isWarm = false
  async function one(): Promise<void> {
    const route = pick(routes)
    const path = pathOf(route)
    const body = route.method === 'GET' ? undefined : bodyOf()
    const type = pick(types)
    const begun = performance.now()
    const status = await fetch(server.url + path, {
      method: route.method,
      headers: { connection: 'close', ...(type && body !== undefined ? { 'content-type': type } : {}) },
      ...(body === undefined ? {} : { body: body as BodyInit }),
    }).then(
      async (response) => {
        const text = await response.text()
        if (response.status >= 500 || /\n {4}at /.test(text))
          console.error(
            `${response.status} ${route.method} ${path.slice(0, 300)} ${String(body).slice(0, 300)}\n  ${text.slice(0, 300)}`,
          )
        return String(response.status)
      },
      (cause: unknown) => {
        console.error(`No answer: ${route.method} ${path.slice(0, 300)}`, cause)
        return 'none'
      },
    )
    const ms = performance.now() - begun
    if (isWarm && ms > 2000) console.error(`${ms.toFixed(0)} ms: ${route.method} ${path.slice(0, 300)}`)
    const of = isWarm ? 'warm' : 'cold'
    slowest[of] = Math.max(slowest[of], ms)
    byStatus[status] = (byStatus[status] ?? 0) + 1
  }
  async function many(count: number): Promise<void> {
    let left = count
    await Promise.all(
      Array.from({ length: atOnce }, async () => {
        while (left-- > 0) await one()
      }),
    )
  }
  await many(Math.min(warmUp, tries))
  isWarm = true
  const warm = memoryOf(server.pid)
  await many(Math.max(0, tries - warmUp))
  // Background checks, idle threads that end, and the garbage collector need a moment.
  await pause(Math.min(45_000, tries))
  const end = memoryOf(server.pid)
  await server.stop()
  await db.drop()
  return {
    routes: routes.length,
    byStatus,
    slowestMs: slowest.warm,
    slowestColdMs: slowest.cold,
    memoryMb: [warm, end],
  }
}
