// npm run fuzz [-- TRIES [SEED]]: hostile requests to every route that the file tree has, hostile texts to every
// reader, and valid jobs whose values lie at the edges of their fields. Prints how many answers were of which kind;
// fails where one was of 500 or took over two seconds, or the server did not give its memory back. Time and memory
// are looked at once the server is warm: every paper of twelve clients at once is made for the first time before.
import { readFileSync, readdirSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { readJobFile } from '#core/formats/job-file'
import { readProofCsv, readRecordingCsv } from '#core/formats/proof-csv'
import { readCaseCsv, readLoadsCsv, readReadingsCsv } from '#core/formats/loads-csv'
import { readShelfCsv } from '#core/formats/shelf-csv'
import { readVoltageLog } from '#core/formats/voltage-log'
import { readEpw } from '#core/weather/epw'
import { shelfKindIds } from '#core/shelf/kinds'
import { fuzzEdges } from './lib/fuzz-edges'
import { fuzzRoutes, type Fuzzed } from './lib/fuzz-routes'
import { chanceOf, spoiltText } from './lib/hostile'
import { buildIfStale } from './lib/machine.mjs'
import { startCluster } from './lib/postgres.mjs'

const [tries = 100_000, seed = Date.now() % 1_000_000] = process.argv.slice(2).map(Number)
const root = fileURLToPath(new URL('..', import.meta.url))
const mostMs = 2000
/** Valid jobs at the edges of their fields, in a long run; and how long one may be checked, ms. */
const edgeJobs = 3000
const mostJudgingMs = 5000
/** Tries from which on memory is looked at too: a short run tells nothing of it. */
const triesForFigures = 20_000

/** Every reader, with a text it reads. */
const readers: Readonly<Record<string, { readonly read: (text: string) => unknown; readonly good: string }>> =
  {
    job: {
      read: readJobFile,
      good: readFileSync(`${root}demo/jobs/${readdirSync(`${root}demo/jobs`)[0]!}`, 'utf8'),
    },
    proof: {
      read: (text) => readProofCsv(text, [{ id: 'rested-bank', quantity: 'volts', unit: 'V' }]),
      good: 'test,value\nrested-bank,13.3\n',
    },
    recording: {
      read: (text) =>
        readRecordingCsv(text, [
          { id: 'rested-bank', quantity: 'volts', unit: 'V', run: null, from: 'bank-plus' },
        ]),
      good: 'time,quantity,at,value,unit\n0,volts,bank-plus,13.3,V\n',
    },
    loads: { read: readLoadsCsv, good: 'name,supply,amps (A),hours (h)\nLamp,dc,2.5,3\nFridge,dc,4,24\n' },
    readings: { read: readReadingsCsv, good: 'time (s),current (A),voltage (V)\n0,1,12.6\n1,2,12.5\n' },
    case: { read: readCaseCsv, good: 'amps (A),rpm (rpm),minutes (min),celsius (°C)\n60,4000,10,82\n' },
    voltage: { read: readVoltageLog, good: 'time (s),voltage (V)\n0,12.6\n60,14.4\n' },
    weather: {
      read: readEpw,
      good: readFileSync(`${root}public/weather/port-larkspur.epw`, 'utf8').slice(0, 20_000),
    },
    ...Object.fromEntries(
      shelfKindIds.map((kind) => [
        `shelf ${kind}`,
        {
          read: (text: string) => readShelfCsv(text, kind),
          good: readFileSync(`${root}demo/shelf/${kind}.csv`, 'utf8'),
        },
      ]),
    ),
  }

/** Texts to every reader. @returns how many of them threw, and the slowest, ms */
function fuzzReaders(count: number): { readonly thrown: number; readonly slowestMs: number } {
  const chance = chanceOf(seed)
  const all = Object.entries(readers)
  let thrown = 0
  let slowestMs = 0
  for (let i = 0; i < count; i++) {
    const [name, { read, good }] = all[i % all.length]!
    const text = spoiltText(chance() < 0.3 ? spoiltText(good, chance) : good, chance)
    const begun = performance.now()
    try {
      read(text)
    } catch (cause) {
      thrown++
      console.error(`The reader of ${name} threw:`, cause)
    }
    slowestMs = Math.max(slowestMs, performance.now() - begun)
  }
  return { thrown, slowestMs }
}

buildIfStale()
const cluster = await startCluster('test-postgres', { durable: false })
process.once('exit', () => cluster.stop())
process.env.TEST_DATABASE_URL = cluster.url
const share = Math.round(tries * 0.3)
const read = fuzzReaders(share)
console.log(
  `${share} texts to ${Object.keys(readers).length} readers, seed ${seed}: ${read.thrown} threw, slowest ${read.slowestMs.toFixed(0)} ms`,
)
const atEdges = Math.min(edgeJobs, Math.ceil((tries / triesForFigures) * edgeJobs))
const edges = fuzzEdges(atEdges, seed)
console.log(
  `${atEdges} jobs at the edges of their fields: ${edges.thrown} threw, ${edges.broken} with a number without meaning, slowest ${edges.slowestMs.toFixed(0)} ms`,
)
const asked: Fuzzed = await fuzzRoutes(tries - share, seed)
console.log(
  `${tries - share} requests to ${asked.routes} routes: ${Object.entries(asked.byStatus)
    .map(([status, count]) => `${count} of ${status}`)
    .join(
      ', ',
    )}; slowest ${asked.slowestMs.toFixed(0)} ms, ${asked.slowestColdMs.toFixed(0)} ms while it was cold; memory ${asked.memoryMb.map((mb) => mb.toFixed(0)).join(' → ')} MB`,
)
const isGood =
  read.thrown === 0 &&
  edges.thrown === 0 &&
  edges.broken === 0 &&
  edges.slowestMs < mostJudgingMs &&
  Math.max(read.slowestMs, asked.slowestMs) < mostMs &&
  !Object.keys(asked.byStatus).some((status) => Number(status) >= 500 || status === 'none') &&
  (tries < triesForFigures || asked.memoryMb[1] - asked.memoryMb[0] < 50)
console.log(isGood ? 'Nothing found.' : 'Found something: see above.')
process.exit(isGood ? 0 : 1)
