import type { ShownEssential } from '#core/diagnosis/shown'
import { startEngine, type EngineClient } from './client'
import type { ShownProof } from './prover'

/** An engine that proves one job, with its cached calculations. */
interface ProvingEngine {
  readonly engine: EngineClient
  /** Its inputs: the job without its ticks and readings, and the shop's settings. */
  basis: string
  shown: ShownProof | null
  essential: ShownEssential | null
}

/** It is ended so long after the page was left. */
const keptMs = 5 * 60_000

let kept: { readonly proving: ProvingEngine; readonly end: () => void } | null = null
let leaving: ReturnType<typeof setTimeout> | undefined

function endKept(): void {
  kept?.end()
  kept = null
}

/** A separate engine for proving, so that slow work blocks nothing else. It is kept between visits of the page. */
export function takeProvingEngine(failed: (message: string) => void): ProvingEngine {
  clearTimeout(leaving)
  if (!kept) {
    const { engine, end } = startEngine((message) => {
      endKept()
      failed(message)
    })
    kept = { proving: { engine, basis: '', shown: null, essential: null }, end }
  }
  return kept.proving
}

/** The page is left: it may come back soon. */
export function leaveProvingEngine(): void {
  clearTimeout(leaving)
  leaving = setTimeout(endKept, keptMs)
}
