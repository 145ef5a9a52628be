import { asFitted } from '#core/job/as-fitted'
import type { JobDocument } from '#core/job/document'
import { Diagnosis } from '#core/diagnosis/diagnosis'
import type { Cause } from '#core/diagnosis/hypotheses'
import { chanceOf } from '#core/commissioning/chance'
import { drawnRig, withDrawnFault, StandIn } from '#core/diagnosis/instruments'
import { learntFrom, withLearnt, type Learnt } from '#core/diagnosis/learnt'
import { economical } from '#core/diagnosis/procedure'
import { causeWords } from '#core/diagnosis/rows'
import {
  shownDiagnosis,
  shownEssential,
  shownTests,
  takenOf,
  type ShownDiagnosis,
  type ShownEssential,
  type ShownTest,
} from '#core/diagnosis/shown'
import { hiddenCause } from '#core/diagnosis/stream'
import { caseC, heatMinutes, loadOfMachineA } from '#core/commissioning/tests/engine'
import { unitsOf } from '#core/commissioning/rig'
import type { ShopSettings } from '#core/system/system'
import type { Verdict } from '#core/system/verdict'
import { judgeFitted } from '#core/verdict/job'

/** A job to be proved, as a page shows it. */
export interface ShownProof {
  readonly tests: readonly ShownTest[]
  /** Runs and fuses that can differ as fitted, by path. */
  readonly runs: readonly Fitted[]
  readonly fuses: readonly Fitted[]
}
export interface Fitted {
  readonly id: string
  readonly number: string
  readonly name: string
}
/** Values learnt from readings, and the verdict of the job as fitted, with them. */
export interface Taught {
  readonly learnt: readonly Learnt[]
  readonly verdict: Verdict
  readonly headline: string
  readonly wiring: Verdict
}
export interface Read {
  readonly test: string
  readonly value: number
}
/** The expected case temperature over time: minutes, value and tolerance, °C. */
export interface CaseCurve {
  readonly points: readonly { readonly minutes: number; readonly celsius: number; readonly within: number }[]
}
/** The result of a practice. */
export interface PracticeEnd {
  readonly right: boolean
  readonly was: string
  readonly mend: string
  /** The readings of an efficient search, by title. */
  readonly economical: readonly string[]
  /** Its conclusion; empty if it would not be certain. */
  readonly economicalSaid: string
}

const sliceMs = 25
const pause = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 0))

/** Proving, off the page’s own thread: one job at a time. */
export class Prover {
  private begun: Diagnosis | null = null
  private fitted: JobDocument | null = null
  private shop: ShopSettings = {}
  private turn = 0
  private practice: { readonly standIn: StandIn; readonly cause: Cause; readonly seed: number } | null = null

  /** The diagnosis of the job. @throws before a job is begun */
  private get diagnosis(): Diagnosis {
    if (!this.begun) throw new Error('No job is being proved')
    return this.begun
  }

  begin(job: JobDocument, shop: ShopSettings): ShownProof {
    this.turn++
    this.fitted = asFitted(job)
    this.shop = shop
    this.begun = new Diagnosis(this.fitted, shop)
    const { network } = this.begun.proof.rig
    const name = (id: string): string => network.posts.find((post) => post.id === id)?.name ?? id
    return {
      tests: shownTests(this.begun),
      fuses: network.posts
        .filter(({ kind }) => kind === 'fuse')
        .map(({ id, name: words, fitting }) => ({ id, number: fitting?.number ?? '', name: words })),
      runs: network.runs.map(({ id, number, from, to }) => ({
        id,
        number,
        name: `${name(from)} – ${name(to)}`,
      })),
    }
  }

  /**
   * Calculates the expected readings of each fault, and reads messages in between.
   * @returns the essential tests; null if another job came between
   */
  async prepare(): Promise<ShownEssential | null> {
    const turn = this.turn
    const preparing = this.diagnosis.prepare()
    let begun = performance.now()
    while (!preparing.next().done) {
      if (performance.now() - begun < sliceMs) continue
      await pause()
      if (turn !== this.turn) return null
      begun = performance.now()
    }
    return shownEssential(this.diagnosis)
  }

  diagnose(readings: readonly Read[]): ShownDiagnosis {
    const diagnosis = this.diagnosis
    return shownDiagnosis(diagnosis, diagnosis.given(takenOf(diagnosis, readings)))
  }
  taught(readings: readonly Read[]): Taught {
    const diagnosis = this.diagnosis
    const learnt = learntFrom(diagnosis.proof, takenOf(diagnosis, readings))
    const learntJob = withLearnt(this.fitted!, learnt)
    const { judgement, wiring } = judgeFitted(learntJob, this.shop)
    const { verdict, headline } = judgement
    return { learnt, verdict, headline, wiring: wiring.verdict }
  }

  /** How the case of an alternator should warm over the half hour of its test. */
  caseCurve(test: string): CaseCurve {
    const { proof } = this.diagnosis
    const id = test.replace(/^case-/, '')
    const machine = unitsOf(proof.rig.network, 'alternator').find((unit) => unit.id === id)!
    const { value, tolerance } = this.diagnosis.expect(proof.test(test)!)
    const [leadA] = proof.seen(proof.rig, proof.test(test)!)
    const heat = proof.rig.heat[id]!
    const risen = Math.max(1, value - heat.airC)
    return {
      points: Array.from({ length: heatMinutes + 1 }, (_, minutes) => {
        const celsius = caseC(heat, loadOfMachineA(leadA!, machine), minutes)
        return { minutes, celsius, within: Math.max(2, (tolerance * (celsius - heat.airC)) / risen) }
      }),
    }
  }

  /** Hides a fault in a simulation of the job. */
  practise(seed: number): void {
    const { proof, causes } = this.diagnosis
    const { cause, size } = hiddenCause(causes, seed)
    const rig = drawnRig(
      proof,
      withDrawnFault(proof, cause, { size, chance: chanceOf(seed + 3) }),
      chanceOf(seed + 1),
    )
    this.practice = { standIn: new StandIn(proof, rig, chanceOf(seed + 2)), cause, seed }
  }
  practiceRead(test: string): number {
    return this.practice!.standIn.read(this.diagnosis.proof.test(test)!)
  }
  /** Every cause there is to choose from, in words. */
  practiceChoices(): { readonly id: string; readonly words: string }[] {
    return this.diagnosis.causes
      .filter(({ fault }) => fault !== null)
      .map((cause) => ({ id: cause.id, words: causeWords(cause) }))
      .sort((a, b) => a.words.localeCompare(b.words))
  }
  practiceEnd(guess: string): PracticeEnd {
    const { standIn, cause, seed } = this.practice!
    const again = new StandIn(this.diagnosis.proof, standIn.rig, chanceOf(seed + 2))
    const course = economical(this.diagnosis, again)
    const top = course.posterior.top()
    return {
      right: guess === cause.id,
      was: causeWords(cause),
      mend: cause.fault!.mend,
      economical: course.untilSure === null ? [] : course.sinceAlarm.map(({ title }) => title),
      economicalSaid: course.untilSure === null ? '' : causeWords(top.cause),
    }
  }
}
