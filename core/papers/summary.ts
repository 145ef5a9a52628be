import { present } from '#core/collections/held'
import type { CheckResult } from '#core/assessment/result'
import type { Assessment } from '#core/assessment/assess'
import type { WiringVerdict } from '#core/assessment/wired'
import { asSpecified } from '#core/job/as-specified'
import { drawLanes } from '#core/compare/instruments'
import { crafts, fieldAt, isOfWholeJob, type JobDocument } from '#core/job/document'
import type { ListedStep } from '#core/job/specified'
import { remedyEffort, remedyLabel } from '#core/remedies/catalogue'
import { ruleCatalogue, type RuleId } from '#core/rules/rules'
import type { Input } from '#core/system/facts'
import type { ShopSettings } from '#core/system/system'
import type { Verdict } from '#core/system/verdict'
import type { DisplayUnits } from '#core/units/display'
import { inSentence, writerIn, type Write, joinText } from '#core/units/format'
import { intended, judgeJob, type WholeJudgement } from '#core/verdict/job'
import { changesToMake } from '#core/verdict/to-change'
import {
  dayOf,
  heading,
  listSection,
  paperSize,
  plain,
  soft,
  strong,
  type Block,
  type Line,
  type Paper,
  type Section,
} from './blocks'

/** Inputs of a summary. */
interface SummaryInputs {
  readonly job: JobDocument
  readonly judged: WholeJudgement
  /** The subject of each lane, in a few words. */
  readonly lanes: readonly { readonly id: string; readonly about: string }[]
  readonly shop: { readonly name: string; readonly units: DisplayUnits }
  readonly madeAt: string
}

const cautions = [
  joinText(
    'A battery stores enough energy to weld and to burn. Disconnect it as its maker says. ',
    'Remove jewellery, cover the posts, and fit the fuse close to the battery.',
  ),
  joinText(
    'Leave mains wiring, gas and work in engine spaces to people licensed for them. ',
    'The local code and the makers’ instructions come before this page.',
  ),
  joinText(
    'This page compares figures of this job with the limits shown. ',
    'It is the installer’s advice, not a certificate of compliance with any standard.',
  ),
  'If a reading is assumed or missing, the answer may change once it is taken.',
]

/** The summary of a job unchanged. */
export function summaryOf(
  job: JobDocument,
  {
    rules,
    units,
    name,
    madeAt,
  }: Pick<SummaryInputs, 'madeAt'> & SummaryInputs['shop'] & Required<Pick<ShopSettings, 'rules'>>,
): Paper {
  const shop = { rules, units }
  const judged = judgeJob(job, shop)
  const shown = asSpecified(job)
  const lanes = drawLanes(shown, shop, judged.specifiedAssessment ?? judged.assessment)
  return summaryPaper({ job, judged, lanes, shop: { name, units }, madeAt })
}

/**
 * The customer's paper: the answer, the reasons, the changes, the open items, and the cautions.
 */
function summaryPaper(inputs: SummaryInputs): Paper {
  const { job, judged, shop, madeAt } = inputs
  const assessment = judged.specifiedAssessment ?? judged.assessment
  const { number, name, customer, craft, registration, location, wishes } = job.job
  const q = writerIn(shop.units)
  return {
    title: `Lithium battery for ${name || 'this vehicle'}`,
    over: [shop.name, `Job ${number}`, dayOf(madeAt)].filter(Boolean).join(' · '),
    under: [
      [customer, craft && crafts[craft], registration, location].filter(Boolean).join(' · '),
      wishes ? `Wishes: ${wishes}` : '',
    ].filter(Boolean),
    sections: [
      answer(inputs, q),
      ...inTheWay(checksOf(judged), q),
      ...toChange(inputs, q),
      ...listOf(
        'To be measured',
        intended(judged).measureNext.map(({ part, label, how }) => [
          strong(`${part}: ${inSentence(label)}.`),
          plain(` ${how}`),
        ]),
      ),
      ...paths(inputs),
      ...restsOn(assessment, q),
      ...listSection('Cautions', [...cautionsOf(judged), ...cautions]).map(({ heading, blocks }) => ({
        heading,
        blocks: [...blocks, signatures],
      })),
    ],
    foot: `Job ${number}, ${dayOf(madeAt)}`,
    author: shop.name || 'Jovial Anchor',
    madeAt,
    size: paperSize(shop.units.system),
  }
}

const signatures: Block = { kind: 'signatures', of: ['Installer, date', 'Customer has read this, date'] }

function listOf(heading: string, items: readonly Line[], numbered = false): Section[] {
  return items.length === 0 ? [] : [{ heading, blocks: [{ kind: 'list', numbered, items }] }]
}

function answer({ job, judged: { found, specified } }: SummaryInputs, q: Write): Section {
  const { name, ahEach, parallel } = asSpecified(job).candidate
  const ah = ahEach?.value ? `, ${q(ahEach.value * (parallel?.value ?? 1), 'Ah')}` : ''
  return {
    heading: 'The answer',
    blocks: [
      {
        kind: 'answer',
        verdict: found.verdict,
        text: specified ? `As found: ${found.headline}` : found.headline,
      },
      { kind: 'text', line: [plain(found.reason)] },
      ...(specified
        ? ([
            { kind: 'answer', verdict: specified.verdict, text: `As specified: ${specified.headline}` },
            { kind: 'text', line: [plain(specified.reason)] },
          ] as const)
        : []),
      { kind: 'text', line: [soft(`New battery: ${name || 'not chosen yet'}${ah}`)] },
    ],
  }
}

/** What is to be minded though a check suits; the other findings stand with theirs. */
const cautionsOf = (judged: WholeJudgement): string[] => [
  ...new Set(
    checksOf(judged)
      .filter(({ verdict }) => verdict === 'suits')
      .flatMap((check) => check.cautions),
  ),
]

/** The checks that count for the job as it is to be: those of its wiring too, once that is decided. */
const checksOf = ({ assessment, specifiedAssessment, wiring }: WholeJudgement): readonly CheckResult[] => [
  ...(specifiedAssessment ?? assessment).checks,
  ...(wiring?.checks ?? []),
]

const barred = (checks: readonly CheckResult[]): readonly CheckResult[] =>
  checks.filter(({ verdict }) => verdict === 'does-not-suit')

const inTheWay = (checks: readonly CheckResult[], q: Write): Section[] =>
  listOf(
    'Obstacles',
    barred(checks).map(({ subject, topic, remedies: [first] }) => [
      strong(`${subject}: ${topic}.`),
      ...(first
        ? [
            plain(` Possible change: ${inSentence(remedyLabel(first, q))} `),
            soft(`(${remedyEffort(first, q)})`),
            plain('.'),
          ]
        : []),
    ]),
  )

/** Parts of a step that are named for the customer; more are counted. */
const mostNamed = 4

function partsWords(parts: ListedStep['parts']): string {
  if (parts.length === 0) return ''
  return parts.length > mostNamed
    ? `: ${parts.length} parts, listed in the specification`
    : `: ${parts.map(({ name }) => name).join(', ')}`
}

const stepLine = ({ label, on, parts }: ListedStep): Line => [
  strong(label),
  plain(on && ` (${on})`),
  soft(partsWords(parts)),
]

/** The specified steps, else the changes from the verdicts. */
function toChange({ job, judged }: SummaryInputs, q: Write): Section[] {
  const { specified } = job
  const checks = checksOf(judged)
  const still = changesToMake(intended(judged), checks, asSpecified(job), q).map(
    ({ part, label, effort }): Line => [strong(`${part ? `${part}: ` : ''}${label}.`), soft(` ${effort}`)],
  )
  if (specified) {
    const blocks: Block[] = [
      { kind: 'text', line: [plain(`${specified.name}.`)] },
      { kind: 'list', numbered: true, items: specified.steps.map(stepLine) },
    ]
    if (specified.accepted.length > 0)
      blocks.push({ kind: 'text', line: [plain(`Accepted unchanged: ${specified.accepted.join(' ')}`)] })
    return [{ heading: 'Specification', blocks }, ...listOf('Other changes', still, true)]
  }
  const hindered = barred(checks).length > 0
  const changes = listOf(hindered ? 'Other changes needed' : 'Changes', still, true)
  const alone: Block = { kind: 'text', line: [soft('These changes alone are not enough.')] }
  return changes.map(({ heading, blocks }) => ({ heading, blocks: hindered ? [alone, ...blocks] : blocks }))
}

/** Each way of charging and the battery itself: suspect findings in full, suitable ones by name. */
function paths({ job, judged, lanes }: SummaryInputs): Section[] {
  const assessment = judged.specifiedAssessment ?? judged.assessment
  const lanesAndBattery: Section[] = [
    ...assessment.lanes.map(({ id, name, verdict }) => ({
      lane: id as string | null,
      name,
      verdict,
      about: lanes.find((lane) => lane.id === id)?.about ?? '',
    })),
    {
      lane: null,
      name: 'The battery itself',
      verdict: assessment.battery.verdict,
      about: asSpecified(job).candidate.name,
    },
  ].map(({ lane, name, verdict, about: words }) => ({
    heading: name,
    about: words,
    verdict,
    blocks: [
      {
        kind: 'findings',
        findings: findingsOf(assessment.checks.filter((check) => check.lane === lane)),
      },
    ],
  }))
  return judged.wiring ? [...lanesAndBattery, wiringSection(judged.wiring)] : lanesAndBattery
}

/** The wiring, once it was decided. */
const wiringSection = ({ verdict, checks }: WiringVerdict): Section => ({
  heading: 'Wiring',
  verdict,
  blocks: [{ kind: 'findings', findings: findingsOf(checks) }],
})

function findingsOf(checks: readonly CheckResult[]): Extract<Block, { kind: 'findings' }>['findings'] {
  const fine = [...new Set(checks.filter(({ verdict }) => verdict === 'suits').map(({ topic }) => topic))]
  const suspect = checks.filter(({ verdict }) => verdict !== 'suits')
  return [
    ...suspect.map(({ verdict, title, summary, why, cautions: told }) => ({
      verdict,
      line: [heading(title), plain(` ${summary} ${why}`)],
      small: told,
    })),
    ...(fine.length > 0
      ? [
          {
            verdict: 'suits' as Verdict,
            line: [soft(`Inside the limits: ${fine.join(', ')}.`)],
            small: [],
          },
        ]
      : []),
  ]
}

/** A value by its part; those of the use and the place by themselves. A question loses its mark. */
function inputWords({ path, part, label }: Input): string {
  const { kind } = present(fieldAt(path))
  const words = inSentence(label).replace(/\?$/, '')
  return isOfWholeJob(kind) ? words : `${part}, ${words}`
}

/** Values that were told or assumed and not measured, and the rules set for this job alone. */
function restsOn({ checks, overrides }: Assessment, q: Write): Section[] {
  const said = new Map(
    checks
      .flatMap(({ inputs }) => inputs)
      .filter(({ origin }) => origin.kind === 'assumed' || origin.kind === 'customer')
      .filter(({ origin }) => !origin.isDefault)
      .map((input) => [input.path, { words: inputWords(input), origin: input.origin }]),
  )
  const known = (kind: 'customer' | 'assumed'): string =>
    [...said.values()]
      .filter(({ origin }) => origin.kind === kind)
      .map(({ words }) => words)
      .join('; ')
  const rules = Object.entries(overrides).flatMap(([rule, value]) =>
    rule in ruleCatalogue ? [ruleWords(rule as RuleId, value, q)] : [],
  )
  const lines = [
    known('customer') && `The customer said: ${known('customer')}.`,
    known('assumed') && `Assumed: ${known('assumed')}.`,
    rules.length > 0 ? `Rules set for this job only: ${rules.join('; ')}.` : '',
  ].filter(Boolean)
  if (lines.length === 0) return []
  return [
    {
      heading: 'Basis',
      blocks: lines.map((text): Block => ({ kind: 'text', line: [plain(text)] })),
    },
  ]
}

function ruleWords(rule: RuleId, value: unknown, q: Write): string {
  const known = ruleCatalogue[rule]
  const words =
    known.kind === 'number'
      ? q(Number(value), known.unit)
      : (known.options as Readonly<Record<string, string>>)[String(value)]
  return `${known.label}: ${words}`
}
