import type { JobDocument } from '#core/job/document'
import type { System } from '#core/system/system'
import { withFittingOhm } from '../fitting-ohm'
import { Builder, type WiringDraft } from './builder'
import { secondBarsOf } from './bars'
import { branchesOf } from './branches'
import { enginesOf } from './engine'
import { fittedBy, goneOf } from './gone'
import { houseOf } from './house'
import { linesOf } from './lines'

/**
 * The wiring of a job in the usual order of the trade, with surveyed values and values set by hand: bank, fuse,
 * switch and bar; shunt and bond in the negative; a fuse at every end that has a source; a branch for each
 * source and load.
 * @param system the job as specified, typical values for unknowns
 * @param found the job with its survey and its answer
 */
export function propose(system: System, found: JobDocument): WiringDraft {
  const build = new Builder(system, fittedBy(found))
  const house = houseOf(build)
  enginesOf(build, house)
  branchesOf(build, house)
  secondBarsOf(build, house)
  linesOf(build)
  const posts = [...build.posts.values()]
  return {
    posts,
    runs: withFittingOhm([...build.runs.values()], posts),
    units: build.units,
    lines: build.lines,
    relays: build.relays,
    gone: goneOf(found),
    ground: 'bank-minus',
    cableC: system.rules.cableC,
    bankA: system.bank.continuousA,
  }
}
