import { firstOf } from '#core/collections/held'
import { factsOf } from '#core/system/system'
import { metric } from '#core/units/display'
import { writerIn, joinText } from '#core/units/format'
import { assess, wiringResults, type CheckResult } from '#core/assessment/assess'
import type { Subjects } from '#core/assessment/check'
import { allChecks } from '#core/assessment/checks/index'
import { remedyEffort, remedyLabel } from '#core/remedies/catalogue'
import { verdicts, verdictWords, type Verdict } from '#core/system/verdict'
import type { JobDocument } from '#core/job/document'
import type { RuleOverrides } from '#core/rules/rules'

/** A job to take examples from, with its name. */
export interface Example {
  readonly title: string
  readonly job: JobDocument
  readonly rules?: RuleOverrides
}

const parts: readonly (readonly [title: string, topics: readonly string[]])[] = [
  ['The battery itself', ['battery']],
  ['Mains chargers and charging units', ['charger', 'unit']],
  ['Alternator, link, DC-DC, starting battery', ['alternator', 'link', 'dcdc', 'start']],
  ['Solar and other sources', ['solar', 'source']],
  ['Cold', ['cold']],
  ['Mixed lead-acid', ['mixed']],
  ['Inverters and loads', ['inverter', 'load']],
  ['Cables, fuses and plugs', ['cable']],
  ['What belongs to the whole', ['bank']],
  ['Wiring', ['wiring']],
]
const about: Readonly<Record<keyof Subjects, string>> = {
  battery: 'the battery',
  starting: 'each starting battery',
  device: 'each gauge, alarm or disconnect',
  unit: 'each unit with charge stages',
  alternator: 'each alternator with its link',
  solar: 'each array',
  source: 'each other source',
  lane: 'each charging path',
  cable: 'each cable that serves a source or an inverter',
  inverter: 'each inverter',
  dcLoad: 'each load that the battery feeds itself',
  run: 'each run of the wiring',
  fitting: 'each fuse, switch, relay, shunt, bar and plug of the wiring',
  together: 'the sources that charge at the same time, ashore and under way',
  startCharger: 'each charger that feeds a starting battery',
}

interface Seen {
  readonly example: { readonly title: string; readonly result: CheckResult }
  readonly verdicts: ReadonlySet<Verdict>
  readonly limits: ReadonlySet<string>
  readonly remedies: ReadonlyMap<string, string>
}

const q = writerIn(metric)

/**
 * Examples of each check: the first formula with its numbers, and each verdict, origin of the limit and remedy.
 */
function look(examples: readonly Example[]): Map<string, Seen> {
  const seen = new Map<
    string,
    { example: Seen['example']; verdicts: Set<Verdict>; limits: Set<string>; remedies: Map<string, string> }
  >()
  for (const { title, job, rules } of examples) {
    const checks = [...assess(job, { rules }).checks, ...wiringResults(factsOf(job, { rules }))]
    for (const result of checks) {
      const known = seen.get(result.id)
      const entry = known ?? {
        example: { title, result },
        verdicts: new Set(),
        limits: new Set(),
        remedies: new Map(),
      }
      if (!known) seen.set(result.id, entry)
      // An example with a finding says more than one that suits.
      else if (
        entry.example.result.verdict === 'suits' &&
        result.verdict !== 'suits' &&
        result.verdict !== 'measure-first' &&
        entry.example.title === title
      )
        entry.example = { title, result }
      entry.verdicts.add(result.verdict)
      entry.limits.add(result.limit.text)
      for (const remedy of result.remedies)
        if (!entry.remedies.has(remedy.id))
          entry.remedies.set(remedy.id, `${remedyLabel(remedy, q)} (${remedyEffort(remedy, q)})`)
    }
  }
  return seen
}

/** The description of a check. @param known the findings of the examples */
function linesOf(check: (typeof allChecks)[number], known: Seen | undefined): string[] {
  const lines = [
    `### \`${check.id}\` ${check.title}`,
    '',
    `${check.why} Checks ${about[check.about]}${check.takesTime ? ', with a simulated run' : ''}.`,
    '',
  ]
  if (!known) return [...lines, 'No example applies.', '']
  const {
    example: { title: from, result },
    limits,
    remedies,
  } = known
  return [
    ...lines,
    `- Compares: ${result.compared[0].label} with ${result.compared[1].label}.`,
    `- Formula (${from}): ${result.formula}`,
    `- Limit from: ${[...limits].slice(0, 6).join('; ')}.`,
    `- Verdicts: ${verdicts
      .filter((verdict) => known.verdicts.has(verdict))
      .map((verdict) => verdictWords[verdict])
      .join(', ')}.`,
    ...(remedies.size > 0 ? [`- Remedies: ${[...remedies.values()].join('; ')}.`] : []),
    '',
  ]
}

/**
 * Every check with its comparison, its formula with numbers from an example, the origin of its limit, and its
 * remedies. Markdown, made from the checks and their findings in the examples.
 */
export function describeChecks(examples: readonly Example[]): string {
  const seen = look(examples)
  const section = ([title, topics]: (typeof parts)[number]): string[] => [
    `## ${title}`,
    '',
    ...allChecks
      .filter((check) => topics.includes(firstOf(check.id.split('.'))))
      .flatMap((check) => linesOf(check, seen.get(check.id))),
  ]
  return [
    '# The checks',
    '',
    joinText(
      `${allChecks.length} checks, each on every part it is about. `,
      `Made by \`npm run schema\` from the checks themselves, `,
      'with numbers from the demo jobs and from the cases that test them.',
    ),
    joinText(
      'A check gives its verdict when every plausible value of the unknown fields leads to the same one. ',
      'Otherwise it says Measure first. ',
      'Checks that simulate a run use the run of the Run view with its initial inputs.',
    ),
    '',
    ...parts.flatMap(section),
  ].join('\n')
}
