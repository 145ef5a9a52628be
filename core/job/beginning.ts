import { partsOf, withAssumed, type JobDocument } from './document'

/** The first questions of a new job, in this order. */
const beginningQuestions = ['sources', 'bank', 'battery'] as const
export type BeginningQuestion = (typeof beginningQuestions)[number]

/** Kinds of parts that charge the bank. */
export const sourceKinds = ['alternators', 'chargers', 'solar', 'sources'] as const
export type SourceKind = (typeof sourceKinds)[number]

/** Whether anything of a part was entered: its name, or a value. */
export const isEntered = (part: { readonly name?: string }): boolean =>
  Boolean(part.name) ||
  Object.values(part as Readonly<Record<string, unknown>>).some(
    (known) => typeof known === 'object' && known !== null && 'value' in known && known.value !== null,
  )

const isAnswered: Readonly<Record<BeginningQuestion, (job: JobDocument) => boolean>> = {
  sources: (job) => sourceKinds.some((kind) => partsOf(job, kind).length > 0),
  bank: (job) => isEntered(job.houseBank),
  battery: (job) => isEntered(job.candidate),
}

/** The questions that a job does not answer yet. */
export const openQuestions = (job: JobDocument): BeginningQuestion[] =>
  beginningQuestions.filter((question) => !isAnswered[question](job))

const bank = (
  title: string,
  chemistry: 'flooded' | 'agm' | 'gel',
  nominalV: '12' | '24',
  series: number,
  parallel: number,
  ahEach: number,
) => ({ title, values: { chemistry, nominalV, series, parallel, ahEach } })

/** House banks that a shop sees most. Their values are assumed until someone looks. */
export const typicalBanks = [
  bank('1 × 100 Ah flooded', 'flooded', '12', 1, 1, 100),
  bank('2 × 110 Ah flooded', 'flooded', '12', 1, 2, 110),
  bank('1 × 95 Ah AGM', 'agm', '12', 1, 1, 95),
  bank('2 × 100 Ah AGM', 'agm', '12', 1, 2, 100),
  bank('24 V: 2 × 180 Ah flooded', 'flooded', '24', 2, 1, 180),
] as const

/** The job with a typical house bank, every value of it assumed. */
export const withTypicalBank = (job: JobDocument, { values }: (typeof typicalBanks)[number]): JobDocument =>
  withAssumed(job, 'houseBank', values)
