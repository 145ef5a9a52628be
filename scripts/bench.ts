// npm run bench: how long the core takes, and how large the first page is. Medians of many runs.
import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { Bench } from 'tinybench'
import { assess } from '../core/assessment/assess'
import { drawLanes } from '../core/assessment/instruments'
import { readJobFile, writeJobFile } from '../core/formats/job-file'
import { emptyJob, type JobDocument, withNewPart } from '../core/job/document'
import { parseQuantity } from '../core/units/parse'

const folder = new URL('../demo/jobs/', import.meta.url)
const jobs = readdirSync(folder).map((name) => [name.replace('.json', ''), JSON.parse(readFileSync(new URL(name, folder), 'utf8')) as JobDocument] as const)
const unknown = withNewPart(withNewPart(emptyJob('1'), 'chargers').job, 'alternators').job
const first = jobs[0]![1]
const file = writeJobFile(first)
const assessment = assess(first)

const bench = new Bench({ time: 1500, warmupTime: 500 })
for (const [name, job] of jobs) bench.add(`assess ${name}`, () => { assess(job) })
bench
  .add('assess a job of two sources, all unknown', () => { assess(unknown) })
  .add('draw the lanes of the first job', () => { drawLanes(first, {}, assessment) })
  .add('read and check a job file', () => { readJobFile(file) })
  .add('read a quantity', () => { parseQuantity('14,4 V', 'V') })
await bench.run()

const ms = (value: number): string => (value < 0.1 ? `${(value * 1000).toFixed(2)} µs` : `${value.toFixed(3)} ms`)
console.table(bench.tasks.map(({ name, result }) => result.state === 'completed'
  ? { what: name, median: ms(result.latency.p50), 'p99': ms(result.latency.p99), runs: result.latency.samplesCount }
  : { what: name, median: result.state, p99: '', runs: 0 }))

const scripts = new URL('../.output/public/_nuxt/', import.meta.url)
if (existsSync(scripts)) {
  const sizes = readdirSync(scripts).filter((name) => name.endsWith('.js.gz')).map((name) => readFileSync(new URL(name, scripts)).length)
  console.log(`All JavaScript of the application, gzip: ${Math.round(sizes.reduce((a, b) => a + b, 0) / 1000)} kB in ${sizes.length} files`)
}
