import { fork } from 'node:child_process'
import { availableParallelism } from 'node:os'
import pLimit from 'p-limit'
import { Diagnosis, sureFrom } from '#core/diagnosis/diagnosis'
import { callsOf, firstCallsIn, provedOf, type Call, type Proved } from '#core/diagnosis/calibration'
import { isReading } from '#core/diagnosis/essential'
import { otherId, soundId } from '#core/diagnosis/cause-ids'
import { chanceOf } from '#core/commissioning/chance'
import { drawnRig, withDrawnFault, StandIn } from '#core/diagnosis/instruments'
import type { Risk } from '#core/commissioning/harm'
import { begun, economical, inOrder } from '#core/diagnosis/procedure'
import { specifiedJob } from '../lib/demo-shelf'
import { demoJob, demoJobs, median } from './demo-jobs'

/** How often each fault is tried, with other parameters and other noise each time: SEEDS=3 is quick. */
const seeds = Number(process.env.SEEDS ?? 20)
/** A sound system is tried this many times as often. */
const soundTimes = 10
/** Systems drawn by their priors, to see whether probabilities are meant: this many times as often. */
const callTimes = 10
/** And the essential tests alone on such systems, to see whether the remaining risk is meant. */
const riskTimes = 17

/** One search: the true fault, and the result. */
interface Tried {
  readonly job: string
  readonly fault: string
  /** Place of the right cause in the ranking, from 1; those that no test tells apart count as one. */
  readonly place: number
  /** The likeliest cause was none, and by how much. */
  readonly top: string
  readonly probability: number
  readonly right: boolean
  readonly untilSure: number | null
  readonly untilSureInOrder: number | null
  /** Readings from nothing until the search ended, and whether one of them was out of its band. */
  readonly fromNothing: number
  readonly isSeen: boolean
}
interface JobTried {
  readonly job: string
  readonly tests: number
  readonly causes: number
  readonly together: readonly (readonly string[])[]
  readonly tried: readonly Tried[]
  /** The likeliest causes of searches on systems that are sound or faulty by their priors. */
  readonly calls: readonly (readonly Call[])[]
  readonly essential: { readonly readings: number; readonly minutes: number; readonly risk: Risk }
  readonly proved: readonly Proved[]
}

/** Searches for every fault of one job, and for none. */
function searchAll(number: string): JobTried {
  const diagnosis = new Diagnosis(specifiedJob(demoJob(number)))
  const { proof, causes } = diagnosis
  const listed = causes.filter(({ id }) => id !== otherId)
  const tried = listed.flatMap((cause, i) =>
    Array.from({ length: cause.fault ? seeds : seeds * soundTimes }, (_, seed): Tried => {
      const chance = chanceOf(100_000 * i + seed + 1)
      const size = cause.sizes[Math.floor(chance() * cause.sizes.length)]!
      const rig = drawnRig(proof, withDrawnFault(proof, cause, { size, chance }), chance)
      const standIn = new StandIn(proof, rig, chanceOf(seed + 7))
      const from = begun(diagnosis, standIn)
      const course = economical(diagnosis, standIn, from)
      const ordered = cause.fault ? inOrder(diagnosis, standIn, from) : null
      const named = diagnosis.named(course.posterior)
      const place = named.findIndex((one) => one.causes.includes(cause)) + 1
      const [top] = named
      return {
        job: number,
        fault: cause.fault?.id ?? cause.id,
        place,
        top: top!.causes[0]!.fault?.id ?? top!.causes[0]!.id,
        probability: top!.probability,
        right: place === 1,
        untilSure: course.untilSure,
        untilSureInOrder: ordered?.untilSure ?? null,
        fromNothing: course.tests.filter(isReading).length,
        isSeen: from.isAlarmed,
      }
    }),
  )
  return {
    job: number,
    tests: proof.tests.length,
    causes: listed.length,
    essential: {
      readings: diagnosis.essential.tests.filter(isReading).length,
      minutes: diagnosis.essential.minutes,
      risk: diagnosis.essential.risk,
    },
    proved: Array.from({ length: seeds * riskTimes }, (_, seed) =>
      provedOf(diagnosis, chanceOf(seed + 500_001)),
    ),
    together: diagnosis.together.map((members) => members.map(({ id }) => id)),
    tried,
    calls: Array.from({ length: seeds * callTimes }, (_, seed) => callsOf(diagnosis, chanceOf(seed + 1))),
  }
}

/** The part of {@link benchDiagnosis} that a process of its own does: one job. */
export const benchDiagnosisOf = (number: string): Promise<void> =>
  new Promise((resolve) => process.send!(searchAll(number), undefined, undefined, () => resolve()))

function inProcess(number: string): Promise<JobTried> {
  const begun = Date.now()
  return new Promise((resolve, reject) => {
    const child = fork(process.argv[1]!, ['diagnosis-of', number])
    child.once('message', (told: JobTried) => {
      console.log(`Job ${number} after ${Math.round((Date.now() - begun) / 1000)} s`)
      tell(told)
      resolve(told)
    })
    child.once('error', reject)
    child.once('exit', (code) => reject(new Error(`Job ${number} ended with ${code}`)))
  })
}

const percent = (share: number): string => `${(100 * share).toFixed(1)} %`
const shareOf = <T>(all: readonly T[], is: (one: T) => boolean): number =>
  all.length === 0 ? 0 : all.filter(is).length / all.length
/** Readings until one cause is sure; a search that never comes to that counts as endless. */
const readings = (all: readonly Tried[], of: 'untilSure' | 'untilSureInOrder'): string => {
  const middle = median(all.map((one) => (one.right ? (one[of] ?? Infinity) : Infinity)))
  return Number.isFinite(middle) ? String(middle) : 'never'
}

function rowOf(what: string, all: readonly Tried[]): Record<string, string | number> {
  return {
    what,
    searches: all.length,
    first: percent(shareOf(all, ({ right }) => right)),
    'in three': percent(shareOf(all, ({ place }) => place <= 3)),
    'readings until sure': readings(all, 'untilSure'),
    'by the order alone': readings(all, 'untilSureInOrder'),
    'seen by essential tests': percent(shareOf(all, ({ isSeen }) => isSeen)),
    'readings from nothing': median(all.map(({ fromNothing }) => fromNothing)),
  }
}

const isFaulty = ({ fault }: Tried): boolean => fault !== soundId

/** The result of one job, printed as soon as it is ready: the whole bench takes long. */
function tell({ job, tests, causes, together, tried, essential, proved }: JobTried): void {
  const { readings: count, minutes, risk } = essential
  console.log(
    `Job ${job}: ${count} essential readings, ${minutes} min; once they are as they must be hidden ${percent(risk.hidden)}, dangerous ${percent(risk.dangerous)}`,
  )
  console.table(riskRows(proved))
  console.log(
    `Job ${job}: ${tests} tests, ${causes} causes, ${together.length} groups that no test tells apart: ${together.map((ids) => ids.join(' = ')).join('; ')}`,
  )
  console.log(alarmsIn(tried))
  console.table([rowOf(`job ${job}`, tried.filter(isFaulty))])
}

/** How often a sound system was called faulty. */
function alarmsIn(tried: readonly Tried[]): string {
  const sound = tried.filter((one) => !isFaulty(one))
  const alarmed = sound.filter(({ top, probability }) => top !== soundId && probability >= 0.5)
  return `Sound systems called faulty: ${alarmed.length} of ${sound.length}, ${percent(alarmed.length / sound.length)}`
}

/** How well faults are found: over every demo job as specified, every fault it can have, and many seeds. */
export async function benchDiagnosis(): Promise<void> {
  const limit = pLimit(availableParallelism())
  const jobs = await Promise.all(demoJobs.map(([name]) => limit(() => inProcess(name.slice(0, 4)))))
  const all = jobs.flatMap(({ tried }) => tried)
  const wrong = all.filter(isFaulty)
  console.log(
    `Diagnosis: right cause first, among three, readings from the alarm until ${100 * sureFrom} % sure`,
  )
  console.table([
    ...jobs.map(({ job, tried }) => rowOf(`job ${job}`, tried.filter(isFaulty))),
    rowOf('all', wrong),
  ])
  console.table(
    [...new Set(wrong.map(({ fault }) => fault))].map((fault) => ({
      ...rowOf(
        fault,
        wrong.filter((one) => one.fault === fault),
      ),
      'taken for': takenFor(wrong.filter((one) => one.fault === fault)),
    })),
  )
  console.log(alarmsIn(all))
  console.table(calibrationOf(jobs.flatMap(({ calls }) => calls)))
  console.log('Remaining risk after the essential tests, on systems drawn by their priors')
  console.table(riskRows(jobs.flatMap(({ proved }) => proved)))
}

/** The stated hidden risk against the true one: over all systems, and over those with all readings in their bands. */
function riskRows(all: readonly Proved[]): Record<string, string | number>[] {
  const mean = (of: readonly Proved[], value: (one: Proved) => number): number =>
    of.reduce((sum, one) => sum + value(one), 0) / Math.max(1, of.length)
  const row = (systems: string, of: readonly Proved[]): Record<string, string | number> => ({
    systems,
    count: of.length,
    'hidden, said': percent(mean(of, ({ said }) => said.hidden)),
    'hidden, true': percent(shareOf(of, ({ isFaulty: is }) => is)),
    'dangerous, said': percent(mean(of, ({ said }) => said.dangerous)),
    'dangerous, true': percent(shareOf(of, ({ isDangerous }) => isDangerous)),
  })
  return [
    row('all', all),
    row(
      'all readings within',
      all.filter(({ within }) => within),
    ),
  ]
}

/** The named cause where the true one was not first. */
function takenFor(all: readonly Tried[]): string {
  const counts = new Map<string, number>()
  for (const { right, top } of all) if (!right) counts.set(top, (counts.get(top) ?? 0) + 1)
  return [...counts].map(([top, count]) => `${top} ${count}`).join(', ')
}

/** The share of right calls at each probability, on systems drawn from their priors. */
function calibrationOf(searches: readonly (readonly Call[])[]): Record<string, string | number>[] {
  return [0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9].map((from) => {
    const calls = firstCallsIn(searches, [from, from === 0.9 ? Infinity : from + 0.1])
    const faults = calls.filter(({ fault }) => fault)
    return {
      called: `${(100 * from).toFixed(0)} to ${(100 * (from + 0.1)).toFixed(0)} %`,
      searches: calls.length,
      right: percent(shareOf(calls, ({ right }) => right)),
      'of them a fault': faults.length,
      'fault right': percent(shareOf(faults, ({ right }) => right)),
    }
  })
}
