import fc from 'fast-check'
import { assess, wiringResults, type Assessment, type CheckResult } from '#core/assessment/assess'
import type { RuleOverrides } from '#core/rules/rules'
import { withSpecified } from '#core/job/as-specified'
import { changesBetween } from '#core/job/changes'
import { completeJob } from '#core/job/complete'
import {
  emptyJob,
  listParts,
  withField,
  withNewPart,
  withPart,
  type AnyPart,
  type JobDocument,
  type PartPath,
} from '#core/job/document'
import { partKinds, type Field, type ManyKindId, type PartKind, type PartKindId } from '#core/job/fields'
import { factsOf, type ShopSettings } from '#core/system/system'
import { judgementOf, type Judgement } from '#core/verdict/judgement'

/** Of a test that takes several seconds: `npm test` leaves it to `npm test -- --all`. */
export const long = { tags: ['long'] }

const evenParts = 1_000_000
/** Any number from one to another, each alike: doubles of their own would crowd near zero. */
export const evenly = (min: number, max: number): fc.Arbitrary<number> =>
  fc.integer({ min: 0, max: evenParts }).map((part) => min + ((max - min) * part) / evenParts)

/** Values by field path; null makes one unknown. */
export type Values = Readonly<Record<string, unknown>>

/** Values of a part by field path, from those by field. */
export const under = (path: string, values: Values): Values =>
  Object.fromEntries(Object.entries(values).map(([name, value]) => [`${path}/${name}`, value]))

/** A job with values set, each as measured. */
export const withValues = (job: JobDocument, values: Values): JobDocument =>
  Object.entries(values).reduce(
    (next, [path, value]) =>
      withField(next, path, value === null ? { value: null } : { value, how: 'measured' }),
    job,
  )

const part = (values: Values): AnyPart =>
  Object.fromEntries(Object.entries(values).map(([name, value]) => [name, { value, how: 'measured' }]))

/** The facts of a part with a usual value, as measured. A test then changes only its subject. */
function usualFacts(kind: PartKindId): AnyPart {
  const fields = Object.entries((partKinds[kind] as PartKind).fields)
  const facts = fields.flatMap(([name, field]) => {
    if (field.type === 'rows' || field.isDecision) return []
    const { otherwise } = field
    return typeof otherwise === 'number' || (field.type === 'choice' && otherwise !== undefined)
      ? [[name, { value: otherwise, how: 'measured' }] as const]
      : []
  })
  return Object.fromEntries(facts) as AnyPart
}
const withUsualFacts = (job: JobDocument, path: PartPath, kind: PartKindId): JobDocument =>
  withPart(job, path, (part) => ({ ...usualFacts(kind), ...part }))

/** Adds a part with measured values, and properties of its own such as `from`. */
export const withMeasured = (
  job: JobDocument,
  kind: ManyKindId,
  values: Values,
  own: AnyPart = {},
): JobDocument => withNewPart(job, kind, { ...usualFacts(kind), ...part(values), ...own }).job

/** A job as found, with a chosen answer that leads to another job. */
export const answeredWith = (found: JobDocument, done: JobDocument): JobDocument =>
  withSpecified(found, {
    name: 'Answer',
    at: '2026-11-20T10:00:00.000Z',
    by: 'Ida',
    battery: [],
    steps: [],
    accepted: [],
    changes: changesBetween(found, done),
  })

/** A plain 12 V job that suits in every check: a base from which a test changes one thing. */
export function goodJob(): JobDocument {
  const empty = (['use', 'houseBank', 'place', 'candidate'] as const).reduce(
    (next, kind) => withUsualFacts(next, kind, kind),
    withUsualFacts(emptyJob('0001', 'Test boat'), 'startingBatteries/starting-1', 'startingBatteries'),
  )
  let job = withValues(empty, {
    'use/dcAtOnceA': 40,
    'use/dailyAh': 120,
    'use/daysAway': 1,
    'use/monitor': 'shunt',
    'use/shuntA': 500,
    'use/warns': 'yes',
    'houseBank/nominalV': '12',
    'houseBank/chemistry': 'flooded',
    'houseBank/parallel': 2,
    'houseBank/ahEach': 110,
    'houseBank/ageYears': 5,
    'startingBatteries/starting-1/present': 'yes',
    'startingBatteries/starting-1/chemistry': 'flooded',
    'startingBatteries/starting-1/ah': 90,
    'startingBatteries/starting-1/standbyA': 0.05,
    'startingBatteries/starting-1/jumpSwitch': 'no',
    'place/where': 'cabin',
    'place/widthMm': 1200,
    'place/depthMm': 600,
    'place/heightMm': 300,
    'place/coldestC': 12,
    'place/hottestC': 35,
    'candidate/chemistry': 'lfp',
    'candidate/ahEach': 200,
    'candidate/recommendedChargeA': 80,
    'candidate/largestChargeA': 100,
    'candidate/continuousA': 150,
    'candidate/coldCut': 'yes',
    'candidate/mostParallel': 4,
    'candidate/mostSeries': 4,
    'candidate/weightKg': 24,
    'candidate/widthMm': 520,
    'candidate/depthMm': 240,
    'candidate/heightMm': 220,
    'candidate/certificates': 'both',
    'candidate/peakA': 300,
    'candidate/peakS': 10,
  })
  job = withMeasured(job, 'chargers', {
    ratedA: 30,
    profile: 'fixed',
    absorptionV: 14.4,
    absorptionH: 2,
    floatMode: 'on',
    floatV: 13.5,
    equaliseStage: 'none',
    compensation: 'none',
    hours: 8,
  })
  job = withMeasured(job, 'alternators', {
    nominalV: '12',
    ratedA: 120,
    regulator: 'fixed',
    regulatorV: 14.3,
    vehicleDrawA: 10,
    driveHours: 3,
    riseK: 60,
  })
  return withMeasured(
    job,
    'links',
    {
      kind: 'dcdc',
      inputV: '12',
      outputV: '12',
      signal: 'wire',
      ratedA: 30,
      profile: 'lithium',
      absorptionV: 14.4,
      floatMode: 'off',
      equaliseStage: 'none',
      compensation: 'none',
    },
    { from: 'alternators/alternator-1' },
  )
}

/** The good job with a straight link in place of its DC-DC. */
export const straightJob = (link: Values): JobDocument =>
  withValues(goodJob(), {
    'links/link-1/kind': 'vsr',
    'links/link-1/ratedA': null,
    'links/link-1/bothWay': 'no',
    ...under('links/link-1', link),
  })

/**
 * The one result of a check on a part. Throws when the check did not apply, so that no test passes by its
 * absence.
 */
export function resultOf(job: JobDocument, id: string, on: string, rules: RuleOverrides = {}): CheckResult {
  const checks = checksOf(job, rules)
  const found = checks.find((c) => c.id === id && c.on === on)
  if (!found)
    throw new Error(
      `${id} did not apply to ${on}; it applied to ${
        checks
          .filter((c) => c.id === id)
          .map((c) => c.on)
          .join(', ') || 'nothing'
      }`,
    )
  return found
}

export const applies = (job: JobDocument, id: string): boolean => checksOf(job).some((c) => c.id === id)

/** Every check of a job, and of its wiring where that is calculated in it. */
export const checksOf = (
  job: JobDocument,
  rules: RuleOverrides = {},
  options: { readonly quick?: boolean } = {},
): readonly CheckResult[] => [
  ...assess(job, { rules }, options).checks,
  ...wiringResults(factsOf(job, { rules })),
]

/** The good job with values of one of its parts changed. */
export const charger = (values: Values): JobDocument =>
  withValues(goodJob(), under('chargers/charger-1', values))
export const link = (values: Values): JobDocument => withValues(goodJob(), under('links/link-1', values))
export const candidate = (values: Values): JobDocument => withValues(goodJob(), under('candidate', values))
export const alternator = (job: JobDocument, values: Values): JobDocument =>
  withValues(job, under('alternators/alternator-1', values))

/** A job with a usual solar array. */
export const withArray = (values: Values = {}, job: JobDocument = goodJob()): JobDocument =>
  withMeasured(job, 'solar', {
    panelW: 175,
    parallel: 2,
    openCircuitV: 22,
    controller: 'mppt',
    maxPvV: 75,
    ratedA: 30,
    shading: 10,
    profile: 'lithium',
    absorptionV: 14.4,
    floatMode: 'off',
    equaliseStage: 'none',
    compensation: 'none',
    ...values,
  })

/** A share of anything, each alike. */
export const share = evenly(0, 1)
/** The one of a list at a share of it. */
export const pick = <T>(list: readonly T[], at: number): T =>
  list[Math.min(list.length - 1, Math.floor(at * list.length))]!

function valueFor(field: Field, at: number): unknown {
  if (field.type === 'rows' || at > 0.97) return null
  if (field.type === 'choice') return pick(Object.keys(field.options), at / 0.97)
  const [low, high] = typeof field.plausible === 'function' ? field.limits : field.plausible
  const value = Number((low + (high - low) * at).toPrecision(3))
  return field.unit === '' ? Math.max(1, Math.round(value)) : value
}

interface Edit {
  readonly part: number
  readonly field: number
  readonly at: number
}

function edited(job: JobDocument, { part, field: which, at }: Edit): JobDocument {
  const ref = pick(listParts(job), part)
  const [name, field] = pick(Object.entries((partKinds[ref.kind] as PartKind).fields), which)
  return withField(job, `${ref.path}/${name}`, { value: valueFor(field, at), how: 'measured' })
}

/** Jobs made at random out of some, by up to seven values. */
export const anyJobFrom = (starts: readonly JobDocument[]): fc.Arbitrary<JobDocument> =>
  fc
    .tuple(
      fc.constantFrom(...starts),
      fc.array(fc.record({ part: share, field: share, at: share }), { maxLength: 7 }),
    )
    .map(([start, edits]) => completeJob(edits.reduce(edited, start)))

/** A simple job that suits, with a well-fused cable to its charger that is far too thin for its voltage drop. */
export const longWayJob = (): JobDocument =>
  withMeasured(
    goodJob(),
    'conductors',
    {
      lengthM: 12,
      areaMm2: 10,
      fromPost: 'house',
      toPost: 'charger',
      fuseKind: 'class-t',
      fuseA: 50,
      farFuseKind: 'class-t',
      farFuseA: 50,
    },
    { of: 'chargers/charger-1' },
  )

/** The checks of a survey and their total, without its wiring. */
export function assessed(
  job: JobDocument,
  shop: ShopSettings = {},
  options: { readonly quick?: boolean } = {},
): Assessment & Judgement {
  const assessment = assess(job, shop, options)
  const { checks } = assessment
  return { ...assessment, ...judgementOf({ facts: factsOf(job, shop), checks, wiring: null, shop }) }
}
