import { firstOf } from '#core/collections/held'
import { isAccepted } from '#core/assessment/finding'
import { keyOf, type Finding } from '#core/assessment/result'
import type { JobDocument } from '#core/job/document'
import { applyRemedy, canTry, joinRemedies, sameRemedy, type RemedyRef } from '#core/remedies/catalogue'

/** The changes that a job needs, each once, and whether it suits when they are made. */
interface Settling {
  readonly changes: readonly RemedyRef[]
  readonly settles: boolean
}

/** Gives the findings of a job. */
export type Judge = (job: JobDocument) => readonly Finding[]

interface Judges {
  /** Of the survey, without the checks that need a run. */
  readonly survey: Judge
  /** Of the wiring; null if none was decided. */
  readonly wiring: Judge | null
}

/** More changes in a row than any job needs. */
const mostRounds = 40

/**
 * The changes after which a job suits, made one after another: each is chosen for the first finding that is still
 * open after the earlier ones, so that no change is listed if another one settles its finding.
 * @param findings of the job unchanged, those that need a run among them
 */
export function settlingOf(job: JobDocument, findings: readonly Finding[], judges: Judges): Settling {
  const walk = new Walk(job, findings, judges)
  const end = walk.walkOn()
  if (end === 'stuck') return { changes: firstRemedies(findings), settles: false }
  const accepted = firstRemedies(findings.filter(isAccepted))
  const needed = end === 'suits' ? walk.withoutIdle() : walk.changes
  return { changes: joinRemedies([...needed, ...accepted]), settles: end === 'suits' }
}

/** Where a walk ends: nothing open, only something to measure, or no way on. */
type End = 'suits' | 'measure-first' | 'stuck'

class Walk {
  readonly changes: RemedyRef[] = []
  private changed: JobDocument
  /** Findings that need a run: the walk cannot check them again. */
  private readonly ahead: readonly Finding[]

  constructor(
    private readonly job: JobDocument,
    findings: readonly Finding[],
    private readonly judges: Judges,
  ) {
    this.changed = job
    const judged = new Set(this.openIn(job, () => true).map(({ id, on }) => keyOf(id, on)))
    this.ahead = findings.filter((finding) => isOpen(finding) && !judged.has(keyOf(finding.id, finding.on)))
  }

  /** Makes change after change until none is left to make. */
  walkOn(): End {
    for (let round = 0; round < mostRounds; round++) {
      const open = this.openIn(this.changed, isOpen)
      const toChange = open.filter(({ verdict }) => verdict !== 'measure-first')
      const next = toChange.length > 0 ? this.nextFor(toChange) : this.nextAhead()
      if (next.length === 0 && toChange.length === 0) return open.length === 0 ? 'suits' : 'measure-first'
      if (next.every((ref) => this.isMade(ref))) return 'stuck'
      this.changes.push(...next)
      this.changed = withChanges(this.changed, next)
    }
    return 'stuck'
  }

  /** The changes without those that later ones made idle: a second battery can make a lower current needless. */
  withoutIdle(): readonly RemedyRef[] {
    // A wiring takes too long to be calculated again for each change.
    if (this.judges.wiring) return this.changes
    return this.changes.reduceRight<readonly RemedyRef[]>((kept, change) => {
      const fewer = kept.filter((other) => other !== change)
      const isNeeded = fewer.length === 0 || !canTry(change) || !this.settles(fewer)
      return isNeeded ? kept : fewer
    }, this.changes)
  }

  private settles(changes: readonly RemedyRef[]): boolean {
    const changed = withChanges(this.job, changes)
    return (
      this.ahead.every((finding) => serves(changes, finding)) && this.openIn(changed, isOpen).length === 0
    )
  }

  private openIn(job: JobDocument, isWanted: (finding: Finding) => boolean): Finding[] {
    const open = this.judges.survey(job).filter(isWanted)
    return open.length > 0 || !this.judges.wiring ? open : this.judges.wiring(job).filter(isWanted)
  }

  /** The changes for the first open finding, or all changes of the wiring, since it is calculated as a whole. */
  private nextFor(open: readonly Finding[]): readonly RemedyRef[] {
    const hardStop = open.find(({ verdict }) => verdict === 'does-not-suit')
    if (hardStop) return hardStop.remedies.filter(canTry).slice(0, 1)
    const [{ id, remedies }] = open as [Finding, ...Finding[]]
    if (id.startsWith('wiring.')) return firstRemedies(open)
    const harmless = remedies.find((ref) => !this.makesHardStop(ref))
    return harmless ? [harmless] : remedies.slice(0, 1)
  }
  private makesHardStop(ref: RemedyRef): boolean {
    if (!canTry(ref)) return false
    const findings = this.judges.survey(withChanges(this.changed, [ref]))
    return findings.some(({ verdict }) => verdict === 'does-not-suit')
  }
  private nextAhead(): readonly RemedyRef[] {
    const finding = this.ahead.find((one) => !serves(this.changes, one))
    return finding ? finding.remedies.slice(0, 1) : []
  }
  private isMade(ref: RemedyRef): boolean {
    return this.changes.some((made) => sameRemedy(made, ref) && made.value === ref.value)
  }
}

const isOpen = (finding: Finding): boolean => finding.verdict !== 'suits' && !isAccepted(finding)

/** Whether changes hold one that a finding asks for, or another one on the same part. */
const serves = (changes: readonly RemedyRef[], { remedies }: Finding): boolean =>
  remedies.length === 0 ||
  changes.some(
    (change) => change.on === firstOf(remedies).on || remedies.some((ref) => sameRemedy(change, ref)),
  )

/** The first remedy of every finding that suits after changes, each once, without those that another replaces. */
export const firstRemedies = (findings: readonly Finding[]): readonly RemedyRef[] =>
  joinRemedies(
    findings.flatMap(({ verdict, remedies }) =>
      verdict === 'suits-once-changed' && remedies[0] ? [remedies[0]] : [],
    ),
  )

/** The job with all changes made that a survey can show. */
export const withChanges = (job: JobDocument, changes: readonly RemedyRef[]): JobDocument =>
  changes.filter(canTry).reduce(applyRemedy, job)
