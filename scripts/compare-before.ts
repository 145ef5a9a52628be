// npm run compare-before [-- JOBS [ANSWERED]]: assessments, runs and answers of the demo jobs and of random
// jobs (200, and of these as many answered) as they are and as they were at the commit of lib/before.ts.
// Prints what differs, how often, and an example; every difference is written to .data/differences.txt.
import { execFile } from 'node:child_process'
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { availableParallelism } from 'node:os'
import { promisify } from 'node:util'
import fc from 'fast-check'
import { partKinds, type Field, type PartKind, type PartKindId } from '#core/job/fields'
import { upToDate } from '#core/job/migrations/index'
import { evenly } from '#core/testing'
import { bothTrees, bundled, commit, type Tree } from './lib/before'

const [randomJobs = 200, answered = randomJobs] = process.argv.slice(2).map(Number)
const seed = 10
const changesEach = 40
const shares = availableParallelism()

type Part = Record<string, unknown>
type Job = Record<string, unknown>
interface Result {
  readonly checks: Readonly<Record<string, readonly [verdict: string, summary: string]>>
  readonly runs: Readonly<Record<string, Readonly<Record<string, number | null>>>>
  readonly answers: readonly string[] | null
}

const [before, now] = bothTrees()
const folder = `${before.folder}/demo/jobs`
const demos = readdirSync(folder)
  .sort()
  .map((name): [string, Job] => [
    name.slice(0, 4),
    JSON.parse(readFileSync(`${folder}/${name}`, 'utf8')) as Job,
  ])

/** The parts of a job of version 2, with their fields. */
function partsIn(job: Job): [Part, PartKind['fields']][] {
  return (Object.keys(partKinds) as PartKindId[]).flatMap((kind) => {
    const { many, fields } = partKinds[kind] as PartKind
    if (kind === 'startingBatteries') return [[job.startingBattery as Part, fields]]
    return many
      ? Object.values(job[kind] as Record<string, Part>).map((part): [Part, PartKind['fields']] => [
          part,
          fields,
        ])
      : [[job[kind] as Part, fields]]
  })
}

/** A value a field may have, or none: mostly one that is plausible. */
function valueFor(field: Field, at: number): unknown {
  if (field.type === 'rows' || at < 0.1) return null
  if (field.type === 'choice') {
    const options = Object.keys(field.options)
    return options[Math.floor(at * options.length)]
  }
  const [low, high] = typeof field.plausible === 'function' ? field.limits : field.plausible
  return Number((low + (high - low) * at).toPrecision(3))
}

/**
 * What is left as it is, so that the systems stay such as people have: voltages that do not belong together
 * chatter or go dark, and there a step more or less decides. `other` was no option of `present` before.
 */
const notVaried = new Set(['nominalV', 'inputV', 'outputV', 'present', 'kind'])
const isVaried = ([name, field]: [string, Field]): boolean =>
  !notVaried.has(name) && !(field.type === 'quantity' && field.scales)

/** A demo job with values changed at random; the same ones each time. */
const varied = fc
  .sample(
    fc.array(fc.tuple(evenly(0, 0.9999), evenly(0, 0.9999), evenly(0, 0.9999)), {
      minLength: changesEach,
      maxLength: changesEach,
    }),
    { seed, numRuns: randomJobs },
  )
  .map((changes, i): [string, Job] => {
    const job = structuredClone(demos[i % demos.length]![1])
    const parts = partsIn(job)
    for (const [where, what, value] of changes) {
      const [part, fields] = parts[Math.floor(where * parts.length)]!
      const all = Object.entries(fields).filter(isVaried)
      if (all.length === 0) continue
      const [name, field] = all[Math.floor(what * all.length)]!
      part[name] = { value: valueFor(field, value), how: 'measured' }
    }
    return [`random-${i}`, job]
  })

/**
 * Runs that are carried out, for how many days; and the step of the older engine, s: fine enough that what
 * differs is not its own.
 */
const runDays = { 'driving-day': 1, 'mains-night': 1, away: 3, 'cold-morning': 1 }
const fineS = 5

const program = ({ modules, inputsOf, name }: Tree): string => `
  import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
  import { assess } from './core/assessment/assess'
  import { readShelfCsv } from './core/formats/shelf-csv'
  import { shelfKindIds } from './core/shelf/kinds'
  import { plantOf } from '${modules.plant}'
  import { ${inputsOf} as inputsOf } from '${modules.inputs}'
  import { runNow } from '${modules.runs}'
  import { runIds } from '${modules.runIds}'
  import { planOf } from '${modules.plan}'
  import { solve } from './core/solve/answer'
  const [folder, from, to] = process.argv.slice(2)
  const shelf = shelfKindIds.flatMap((kind) => readShelfCsv(readFileSync(folder + '/demo/shelf/' + kind + '.csv', 'utf8'), kind).parts
    .map(({ code, name, maker, values }) => ({ kind, version: 1, code, name, maker, values })))
  const days = ${JSON.stringify(runDays)}
  const numbers = (totals) => Object.fromEntries(Object.entries(totals).filter(([, value]) => value === null || typeof value === 'number'))
  const results = JSON.parse(readFileSync(from, 'utf8')).map(([name, job, isAnswered]) => {
    const checks = Object.fromEntries(assess(job).checks.map(({ id, on, verdict, summary }) => [id + '@' + on, [verdict, summary]]))
    const runs = {}
    for (const fitted of ['old', 'new']) for (const run of runIds.filter((id) => id in days)) {
      const inputs = { ...inputsOf(job, run), days: days[run] }
      runs[fitted + ' ' + run] = numbers(runNow(run, plantOf(job, {}, fitted), inputs, null, ${name === 'before' ? fineS : 'undefined'}).totals)
    }
    const answers = isAnswered ? solve(planOf(job, {}, shelf)).answers.map((answer) => answer.name + ': ' + answer.verdict) : null
    return [name, { checks, runs, answers }]
  })
  writeFileSync(to, JSON.stringify(results))`

const data = new URL('../.data/', import.meta.url).pathname
mkdirSync(data, { recursive: true })

/** Each share of the jobs in a process of its own. */
async function resultsOf(tree: Tree, jobs: readonly [string, Job][]): Promise<Map<string, Result>> {
  const file = await bundled(tree, 'compare', program(tree))
  const asked = jobs.map(([name, job], i) => [name, job, i < demos.length + answered] as const)
  const found = await Promise.all(
    Array.from({ length: shares }, async (_, share) => {
      const [from, to] = ['jobs', 'results'].map(
        (what) => `${data}compare-${tree.name}-${what}-${share}.json`,
      )
      writeFileSync(from!, JSON.stringify(asked.filter((_, i) => i % shares === share)))
      await promisify(execFile)(process.execPath, [file, tree.folder, from!, to!])
      return JSON.parse(readFileSync(to!, 'utf8')) as [string, Result][]
    }),
  )
  return new Map(found.flat())
}

const jobs = [...demos, ...varied]
const [was, is] = await Promise.all([
  resultsOf(before, jobs),
  resultsOf(
    now,
    jobs.map(([name, job]) => [name, upToDate(job)]),
  ),
])

/** What checks of the one starting battery are called now. */
const renamed = (key: string): string => key.replace('startingBattery', 'startingBatteries/starting-1')
const differences = new Map<string, string[]>()
const differs = (what: string, example: string): void => {
  differences.set(what, [...(differences.get(what) ?? []), example])
}

let results = 0
let runs = 0
let sets = 0
for (const [name, old] of was) {
  const next = is.get(name)!
  const oldChecks = new Map(Object.entries(old.checks).map(([key, check]) => [renamed(key), check]))
  for (const key of new Set([...oldChecks.keys(), ...Object.keys(next.checks)])) {
    results++
    const [a, b] = [oldChecks.get(key), next.checks[key]]
    const id = key.split('@')[0]!
    if (!a || !b) differs(`result only ${a ? 'before' : 'now'}: ${id}`, `${name} ${key}`)
    else if (a[0] !== b[0]) differs(`verdict: ${id}`, `${name} ${key}: ${a[0]} → ${b[0]}: ${a[1]} → ${b[1]}`)
    else if (a[1] !== b[1]) differs(`figures in words: ${id}`, `${name}: ${a[1]} → ${b[1]}`)
  }
  for (const [run, totals] of Object.entries(old.runs)) {
    runs++
    const mine = next.runs[run]!
    const through = Math.max(
      1,
      ...['loadAh', 'engineAh', 'mainsAh', 'solarAh'].map((ah) => Math.abs(totals[ah] ?? 0)),
    )
    for (const ah of [
      'loadAh',
      'unservedAh',
      'engineAh',
      'mainsAh',
      'solarAh',
      'sourceAh',
      'backAh',
      'leadLostAh',
    ].filter((ah) => ah in totals)) {
      const share = Math.abs((mine[ah] ?? 0) - (totals[ah] ?? 0)) / through
      if (share > 0.001)
        differs(
          `run, ${ah} by more than ${share > 0.01 ? '1' : '0.1'} %`,
          `${name} ${run}: ${totals[ah]?.toFixed(3)} → ${mine[ah]?.toFixed(3)} of ${through.toFixed(1)} Ah`,
        )
    }
  }
  if (!old.answers) continue
  sets++
  if (JSON.stringify(old.answers) !== JSON.stringify(next.answers))
    differs('answers', `${name}: ${old.answers.join(' | ')} → ${next.answers!.join(' | ')}`)
}
console.log(`${was.size} jobs against ${commit}: ${results} results, ${runs} runs, ${sets} sets of answers`)
const all = [...differences].sort()
for (const [what, examples] of all)
  console.log(`${String(examples.length).padStart(5)}  ${what}\n       ${examples[0]}`)
writeFileSync(
  `${data}differences.txt`,
  all.flatMap(([what, examples]) => examples.map((example) => `${what}\n  ${example}\n`)).join(''),
)
