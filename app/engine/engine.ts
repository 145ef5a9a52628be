import { present } from '#core/collections/held'
import { runIds, type RunId, type RunInputs } from '#core/simulation/run-kinds'
import { assess, type Assessment } from '#core/assessment/assess'
import { KeptAssessment } from '#core/assessment/kept'
import { wiredJob, wiringVerdictOf, type WiredJob, type WiringVerdict } from '#core/assessment/wired'
import { compareCandidates, type CandidateColumn } from '#core/compare/candidates'
import { drawLanes, type LaneDrawing } from '#core/compare/instruments'
import { variantsOf, type Variant } from '#core/compare/variants'
import type { JobDocument } from '#core/job/document'
import type { RemedyRef } from '#core/remedies/catalogue'
import type { ShelfPart } from '#core/shelf/kinds'
import { orderOf } from '#core/commissioning/order/order'
import type { WorkStep } from '#core/commissioning/order/step'
import type { ShownDiagnosis, ShownEssential } from '#core/diagnosis/shown'
import type { Paper } from '#core/papers/blocks'
import type { PlainInputs } from '#core/papers/inputs'
import type { PlainKind } from '#core/papers/kinds'
import { missingOf, type MissingByKind } from '#core/papers/missing'
import { plainPaper, type LayOut } from '#core/papers/plain'
import { inputsOfJob } from '#core/simulation/inputs'
import type { LeadPlant, LfpPlant, Plant } from '#core/simulation/plant'
import { carryOut, type RunResult } from '#core/simulation/runs'
import { sharingOver, type Sharing } from '#core/simulation/sharing'
import { adjust, type Adjustment, type Answer } from '#core/solve/answer'
import { answersOf, FullAnswers, type Answers } from '#core/solve/answers'
import { Evaluator } from '#core/solve/evaluate'
import { search, type Outcome } from '#core/solve/front'
import { planOf, type Plan } from '#core/solve/plan'
import { schoolsOf, type SchoolView } from '#core/solve/schools'
import { factsOf, type ShopSettings } from '#core/system/system'
import type { Verdict } from '#core/system/verdict'
import { judgeJob, type JobJudgement } from '#core/verdict/job'
import { judgementOf } from '#core/verdict/judgement'
import { readEpw, weatherOf } from '#core/weather/epw'

import { Prover, type CaseCurve, type PracticeEnd, type Read, type ShownProof, type Taught } from './prover'

/** A job checked, as the bench shows it. */
export interface JudgedJob extends JobJudgement {
  readonly assessment: Assessment
  readonly drawings: readonly LaneDrawing[]
  /** The verdict of the wiring; null until it is checked. */
  readonly wiring: Verdict | null
  /** False while the checks that need a run are those of before the last change. */
  readonly complete: boolean
}

/** The runs of a job with their initial inputs. */
interface RunBasis {
  readonly variants: readonly Variant[]
  readonly inputs: Readonly<Record<RunId, RunInputs>>
}

export interface RunOrder {
  readonly run: RunId
  readonly plants: readonly Plant[]
  readonly inputs: RunInputs
  /** Text of a weather file, for runs over a year. */
  readonly epw: string | null
}
type RunOutcome =
  | { readonly ok: true; readonly results: readonly RunResult[]; readonly notes: readonly string[] }
  | { readonly ok: false; readonly error: string }

/** Time without typing before checks with a run start, ms. */
const typingMs = 300

/** Slow work yields to messages after this time, ms: a keystroke waits for that or for one run. */
const stretchMs = 8

/** Lets messages in that come meanwhile. */
const pause = (ms = 0): Promise<void> =>
  new Promise((resolve) => {
    setTimeout(resolve, ms)
  })

/**
 * A job on the bench, checked again and again as it changes. A newer order overtakes one that is still being
 * looked ahead.
 */
class Judge {
  private kept = new KeptAssessment()
  private turn = 0
  /** As they were checked last. */
  private specified: JobJudgement['specified'] = null
  private wiring: WiringVerdict | null = null

  async judge(job: JobDocument, shop: ShopSettings, tell: (judged: JudgedJob) => unknown): Promise<void> {
    const turn = ++this.turn
    const { assessment, complete } = this.kept.take(job, shop)
    const now = { assessment, drawings: drawLanes(job, shop, assessment), complete }
    tell({ ...now, ...this.before(job, shop, assessment) })
    if (turn > 1) await pause(typingMs)
    if (turn !== this.turn) return
    const ahead = complete ? assessment : await this.lookAhead(() => turn === this.turn)
    if (!ahead) return
    const last = { assessment: ahead, drawings: complete ? now.drawings : drawLanes(job, shop, ahead) }
    if (!complete) tell({ ...last, complete: true, ...this.before(job, shop, ahead) })
    await pause()
    if (turn !== this.turn) return
    const { found, specified, wiring } = judgeJob(job, shop, ahead)
    this.specified = specified
    this.wiring = wiring
    const drawn = wiring ?? wiringVerdictOf(job, shop)
    tell({ ...last, complete: true, found, specified, wiring: drawn.verdict })
  }

  /** The judgement of the survey unchanged, with the rest as it was before the last change. */
  private before(
    job: JobDocument,
    shop: ShopSettings,
    { checks }: Assessment,
  ): JobJudgement & Pick<JudgedJob, 'wiring'> {
    const wiring = job.specified ? null : this.wiring
    return {
      found: judgementOf({ facts: factsOf(job, shop), checks, wiring, shop }),
      specified: job.specified ? this.specified : null,
      wiring: this.wiring?.verdict ?? null,
    }
  }

  /** The assessment with the checks that need a run; null if a newer question overtakes it. */
  private async lookAhead(isWanted: () => boolean): Promise<Assessment | null> {
    const looking = this.kept.lookAhead()
    let begun = performance.now()
    for (;;) {
      const { done, value } = looking.next()
      if (done) return value
      if (performance.now() - begun < stretchMs) continue
      await pause()
      if (!isWanted()) return null
      begun = performance.now()
    }
  }

  forget(): void {
    this.turn++
    this.kept = new KeptAssessment()
    this.specified = null
    this.wiring = null
  }
}

/** Everything the core calculates for the page, off the page's own thread. */
export class Engine {
  private readonly judges = { job: new Judge(), trial: new Judge() }
  /** The answers of the plan that is searched. */
  private found: FullAnswers | null = null
  private readonly prover = new Prover()

  /** Checks a job on the bench: first checks without a run, then the others unless a newer request arrives. */
  judge(
    what: 'job' | 'trial',
    job: JobDocument,
    shop: ShopSettings,
    tell: (judged: JudgedJob) => unknown,
  ): Promise<void> {
    return this.judges[what].judge(job, shop, tell)
  }
  /** Forgets the job of before, when another is opened. */
  forget(what: 'job' | 'trial'): void {
    this.judges[what].forget()
  }

  assess(job: JobDocument, shop: ShopSettings): Assessment {
    return assess(job, shop)
  }
  candidates(job: JobDocument, shop: ShopSettings): CandidateColumn[] {
    return compareCandidates(job, shop)
  }
  /** A plain paper as it would be issued now. */
  paper(kind: PlainKind, inputs: PlainInputs, layOut: LayOut): Promise<Paper> {
    return plainPaper(kind, inputs, layOut)
  }
  /** The missing items of each paper. */
  missing(job: JobDocument, shop: Parameters<typeof missingOf>[1], verdict: Verdict | null): MissingByKind {
    return missingOf(job, shop, verdict)
  }
  /** The wiring of a job, proposed and checked. */
  wiring(job: JobDocument, shop: ShopSettings): WiredJob {
    return wiredJob(job, shop)
  }
  /** The order in which a job is fitted. */
  orderOfWork(job: JobDocument, shop: ShopSettings): WorkStep[] {
    return orderOf(job, shop)
  }
  /** A job to prove, with the expected readings. */
  prove(job: JobDocument, shop: ShopSettings): ShownProof {
    return this.prover.begin(job, shop)
  }
  prepareProof(): Promise<ShownEssential | null> {
    return this.prover.prepare()
  }
  diagnose(readings: readonly Read[]): ShownDiagnosis {
    return this.prover.diagnose(readings)
  }
  taught(readings: readonly Read[]): Taught {
    return this.prover.taught(readings)
  }
  caseCurve(test: string): CaseCurve {
    return this.prover.caseCurve(test)
  }
  practise(seed: number): void {
    this.prover.practise(seed)
  }
  practiceRead(test: string): number {
    return this.prover.practiceRead(test)
  }
  practiceChoices(): { readonly id: string; readonly words: string }[] {
    return this.prover.practiceChoices()
  }
  practiceEnd(guess: string): PracticeEnd {
    return this.prover.practiceEnd(guess)
  }
  schools(job: JobDocument, shop: ShopSettings): SchoolView[] {
    return schoolsOf(job, shop)
  }

  runBasis(job: JobDocument, shop: ShopSettings, changes: readonly RemedyRef[]): RunBasis {
    const inputs = Object.fromEntries(runIds.map((run) => [run, inputsOfJob(job, run, shop)])) as Record<
      RunId,
      RunInputs
    >
    return { variants: variantsOf(job, shop, changes), inputs }
  }
  sharing(lfp: LfpPlant, lead: LeadPlant, currentsA: readonly number[]): Sharing[][] {
    return currentsA.map((amps) => sharingOver(lfp, lead, amps))
  }

  /** Carries out a run of one system or several. It is stopped by ending the worker. */
  run({ run, plants, inputs, epw }: RunOrder, tell: (share: number) => unknown): RunOutcome {
    const read = epw === null ? null : readEpw(epw)
    if (read && !read.ok) return { ok: false, error: `line ${read.line}: ${read.error}` }
    const weather = read ? weatherOf(read.file, inputs.tilt) : null
    const results = plants.map((plant, i) => {
      const going = carryOut(run, plant, inputs, weather)
      for (;;) {
        const { done, value } = going.next()
        if (done) return value
        tell((i + value) / plants.length)
      }
    })
    return { ok: true, results, notes: read ? read.file.notes : [] }
  }

  /** Plans a search, for this engine and for those that share it. */
  plan(job: JobDocument, shop: ShopSettings, shelf: readonly ShelfPart[]): Plan {
    const plan = planOf(job, shop, shelf)
    this.share(plan)
    return plan
  }
  /** Takes part in a search that another engine has planned. */
  share(plan: Plan): void {
    this.found = new FullAnswers(new Evaluator(plan))
  }
  /** Looks at some of the combinations planned. It is stopped by ending the worker. */
  search(combinations: readonly number[]): Outcome[] {
    return [...search(present(this.found).evaluator, combinations)]
  }
  /** The answers among those looked at; null where all need looking at. */
  answers(outcomes: readonly Outcome[]): Answers | null {
    return answersOf(present(this.found), outcomes)
  }
  adjust(answer: Answer, adjustments: readonly Adjustment[]): Answer {
    return adjust(present(this.found).evaluator, answer, adjustments)
  }
}
