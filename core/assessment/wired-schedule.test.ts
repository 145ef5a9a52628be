import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import type { JobDocument } from '#core/job/document'
import type { RuleOverrides } from '#core/rules/rules'
import { answeredWith, goodJob, straightJob, under, withArray, withMeasured, withValues } from '#core/testing'
import type { RunFigures } from '#core/wiring/figures'
import type { Post, Run } from '#core/wiring/network'
import type { CheckResult } from './assess'
import { wiredJob } from './wired'

// The wiring of several jobs, whole: each post, run, unit, line and part, its currents and its checks. A rule that
// changes shows here. Read the difference, then write it with `npx vitest run --project units -u`.

type Named = readonly [name: string, job: JobDocument, rules?: RuleOverrides]

const folder = new URL('../../demo/jobs/', import.meta.url)
const demos = readdirSync(folder).map((name): Named => [
  name.replace('.json', ''),
  JSON.parse(readFileSync(new URL(name, folder), 'utf8')) as JobDocument,
])

const withInverter = (job: JobDocument): JobDocument =>
  withMeasured(job, 'inverters', { continuousW: 1500, surgeW: 3000, surgeS: 3, efficiency: 90 })
/** A socket for half an ampere, and a winch that starts hard. */
const withLoads = (job: JobDocument): JobDocument => {
  const socket = withMeasured(job, 'branches', { what: 'socket', amps: 0.5 })
  return withMeasured(socket, 'loads', { supply: 'dc', amps: 60, hours: 0.1, surge: 4 })
}
const inParallel = { 'candidate/parallel': 3, 'candidate/ahEach': 100 }

const made: readonly Named[] = [
  ['three-in-parallel', withInverter(withValues(straightJob({ kind: 'vsr' }), inParallel))],
  [
    'in-a-row-on-a-battery-switch',
    withLoads(withValues(straightJob({ kind: 'switch' }), { ...inParallel, 'candidate/layout': 'ladder' })),
  ],
  ['two-in-series', withValues(goodJob(), { 'candidate/series': 2, 'links/link-1/outputV': '24' })],
  [
    'stop-signal',
    withValues(withArray({}, straightJob({ kind: 'diode', dropV: 0.7 })), { 'candidate/warning': 'stop' }),
  ],
  ['lead-in-parallel', withValues(goodJob(), { 'use/mixed': 'hybrid', 'candidate/leadParallel': 'yes' })],
  [
    'six-sizes-three-families',
    withInverter(withValues(goodJob(), inParallel)),
    { cableStock: 'six', fuseStock: 'three' },
  ],
  [
    'dcdc-in-place-of-relay',
    answeredWith(straightJob({ kind: 'vsr' }), withValues(goodJob(), under('links/link-1', { ratedA: 40 }))),
  ],
]

/** What a solution leaves where nothing flows. */
const noise = 1e-5
/** A number to four digits, so that another machine writes the same. */
const tidy = (value: unknown): string =>
  typeof value !== 'number'
    ? String(value)
    : String(Math.abs(value) < noise ? 0 : Number(value.toPrecision(4)))
/** A line of what is known: nothing for what is null, empty or false, the name alone for what is true. */
const line = (start: string, values: Readonly<Record<string, unknown>>): string =>
  [
    start,
    ...Object.entries(values)
      .filter(([, value]) => value !== null && value !== '' && value !== false)
      .map(([name, value]) => (value === true ? name : `${name} ${tidy(value)}`)),
  ].join(' · ')
const section = (title: string, lines: readonly string[]): string => [title, ...lines].join('\n  ')

const postLine = ({ id, name, kind, intended, state, fitting, place, opposite }: Post): string =>
  line(`${id}: ${name}`, {
    kind: kind === intended ? kind : `${kind} in place of ${intended}`,
    state,
    at: place,
    opposite,
    number: fitting?.number ?? null,
    family: fitting?.family ?? null,
    A: fitting?.ratedA ?? null,
    open: fitting?.isRatingOpen ?? null,
    interrupts: fitting?.aicA ?? null,
  })

const runLine = (run: Run, figures: RunFigures): string =>
  line(`${run.number} ${run.from} → ${run.to}`, {
    role: run.role,
    state: run.state,
    m: run.lengthM,
    mm2: run.areaMm2,
    stud: run.isStud,
    count: run.count,
    from: run.areaKnown,
    least: run.leastA,
    fittings: run.fittingOhm,
    flows: figures.amps,
    case: figures.at,
    cranking: figures.crankingA,
    carries: figures.carriesA,
    lost: figures.lostV,
    way: figures.wayLostV,
    allowed: figures.allowedShare,
    left: figures.leftV,
    fuse: figures.fuse,
    by: figures.governs,
  })

const checkLine = ({ id, on, verdict, compared, cautions, remedies }: CheckResult): string =>
  line(`${id} on ${on}: ${verdict}`, {
    compared: compared.map(({ label, value }) => `${label} ${tidy(value)}`).join(', '),
    cautions: cautions.filter((caution) => !caution.startsWith('Sizes and ratings')).join(' '),
    remedies: remedies.map((remedy) => remedy.id).join(', '),
  })

function scheduleOf(job: JobDocument, rules: RuleOverrides): string {
  const { network, runs, fittings, parts, checks } = wiredJob(job, { rules })
  return [
    section('Posts', network.posts.map(postLine)),
    section(
      'Runs',
      network.runs.map((run, i) => runLine(run, runs[i]!)),
    ),
    section(
      'Units',
      network.units.map(({ id, name, ...values }) => line(`${id}: ${name}`, values)),
    ),
    section(
      'Lines',
      network.lines.map(({ number, name, fuseA }) => line(`${number} ${name}`, { fuse: fuseA })),
    ),
    section(
      'Currents through fittings, and shorts there',
      fittings.map(({ id, throughA, shortA }) => line(id, { through: throughA, short: shortA })),
    ),
    section(
      'Parts',
      parts.map(({ quantity, unit, what, kg }) => line(`${tidy(quantity)} ${unit} ${what}`, { kg })),
    ),
    section('Checks', checks.map(checkLine)),
  ].join('\n\n')
}

describe('the wiring is as it was reviewed', () => {
  for (const [name, job, rules = {}] of [...demos, ...made])
    it(`of ${name}`, async () => {
      await expect(scheduleOf(job, rules)).toMatchFileSnapshot(`./schedules/${name}.txt`)
    })
})
