import type { JobDocument } from './document'
import {
  mostReadings,
  nothingProved,
  type Mended,
  type Proving,
  type StepTick,
  type TakenReading,
} from './proving'

export const provingOf = ({ proving }: JobDocument): Proving => proving ?? nothingProved

const proved = (job: JobDocument, change: (proving: Proving) => Proving): JobDocument => ({
  ...job,
  proving: change(provingOf(job)),
})

/** The job with a step ticked, skipped, or open again. */
export const withStep = (job: JobDocument, id: string, tick: StepTick | null): JobDocument =>
  proved(job, (proving) => {
    const { [id]: _old, ...steps } = proving.steps
    return { ...proving, steps: tick ? { ...steps, [id]: tick } : steps }
  })

/** The job with one more reading of a test. */
export const withReading = (job: JobDocument, test: string, reading: TakenReading): JobDocument =>
  proved(job, (proving) => ({
    ...proving,
    readings: {
      ...proving.readings,
      [test]: [...(proving.readings[test] ?? []), reading].slice(-mostReadings),
    },
  }))

/** The job without the last reading of a test. */
export const withoutReading = (job: JobDocument, test: string): JobDocument =>
  proved(job, (proving) => {
    const { [test]: own = [], ...readings } = proving.readings
    const left = own.slice(0, -1)
    return { ...proving, readings: left.length > 0 ? { ...readings, [test]: left } : readings }
  })

/** The job with a fault repaired. */
export const withMended = (job: JobDocument, mended: Mended): JobDocument =>
  proved(job, (proving) => ({ ...proving, mended: [...proving.mended, mended] }))

/** The job with something fitted otherwise than specified; `undefined` as specified again. */
export const withFitted = (job: JobDocument, path: string, after: unknown): JobDocument =>
  proved(job, (proving) => ({
    ...proving,
    fitted: [
      ...proving.fitted.filter((change) => change.path !== path),
      ...(after === undefined ? [] : [{ path, after }]),
    ],
  }))
