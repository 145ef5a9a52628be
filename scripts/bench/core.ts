import { Bench } from 'tinybench'
import { assess, resultsAhead } from '#core/assessment/assess'
import { compareCandidates } from '#core/compare/candidates'
import { drawLanes } from '#core/compare/instruments'
import { readJobFile, writeJobFile } from '#core/formats/job-file'
import { auditLoads } from '#core/loads/audit'
import { factsOf } from '#core/system/system'
import { parseQuantity } from '#core/units/parse'
import { demoJob, demoJobs, ms, unknownJob } from './demo-jobs'

/** Time of the core's work for a keystroke. */
export async function benchCore(): Promise<void> {
  const first = demoJobs[0]![1]
  const trailer = demoJob('0430')
  const file = writeJobFile(first)
  const assessment = assess(first)
  const bench = new Bench({ time: 1500, warmupTime: 500 })
  for (const [name, job] of demoJobs)
    bench.add(`assess ${name}, at once`, () => {
      assess(job, {}, { quick: true })
    })
  for (const [name, job] of demoJobs)
    bench.add(`look ahead ${name}: the checks that take a run`, () => {
      resultsAhead(factsOf(job))
    })
  bench
    .add('assess a job of two sources, all unknown', () => {
      assess(unknownJob, {}, { quick: true })
    })
    .add('compare four candidates', () => {
      compareCandidates(trailer)
    })
    .add('audit the loads', () => {
      auditLoads(first)
    })
    .add('draw the lanes of the first job', () => {
      drawLanes(first, {}, assessment)
    })
    .add('read and check a job file', () => {
      readJobFile(file)
    })
    .add('read a quantity', () => {
      parseQuantity('14,4 V', 'V')
    })
  await bench.run()

  console.table(
    bench.tasks.map(({ name, result }) =>
      result.state === 'completed'
        ? {
            what: name,
            median: ms(result.latency.p50),
            p99: ms(result.latency.p99),
            runs: result.latency.samplesCount,
          }
        : { what: name, median: result.state, p99: '', runs: 0 },
    ),
  )
}
