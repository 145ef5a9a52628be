import type { Lane, ChargerLane, SolarLane } from '#core/system/lanes'
import { Unsolvable, ifSolvable } from '#core/physics/unsolvable'
import { highestAlternatorV } from '#core/system/currents'
import { Reads } from '#core/system/reads'
import type { System } from '#core/system/system'
import { inputsOf } from '#core/simulation/inputs'
import type { Plant } from '#core/simulation/plant'
import { plantFrom } from '#core/simulation/plant-of-job'
import type { RunId, RunInputs } from '#core/simulation/run-kinds'
import { totalsOf } from '#core/simulation/runs'
import type { Totals } from '#core/simulation/totals'

// Runs that checks look ahead with: those of the run view, with the inputs that view begins with. The unknowns
// a check asks about are those it reads itself; a run uses typical values for the rest.

/** The plant of a system as its scene has it, put together once for all scenes that assume the same. */
function plantIn(system: System): { readonly plant: Plant; readonly number: number } {
  const { facts, assumed, reads } = system.scene
  const { from, ...put } = facts.once(['plant', [...assumed]], () => {
    const own = new Reads(facts.slots)
    const plant = plantFrom(system.asUsual(own), 'new')
    // The name and the assumptions do not change a run.
    return { plant, number: facts.numberOf({ ...plant, name: '', assumed: [] }), from: own.slots }
  })
  reads.noteAll(from)
  return put
}

/**
 * A run of the system in its scene, calculated once for the same plant and inputs.
 * @param alone the only source to keep, if not all of them run
 */
export function runOf(system: System, run: RunId, own: Partial<RunInputs> = {}, alone?: Alone): Totals {
  const { plant, number } = plantIn(system)
  const inputs = { ...inputsOf(system, run), ...own }
  const totals = system.scene.facts.once([run, number, alone, inputs], () =>
    totalsWithin(run, alone ? plantAlone(plant, alone) : plant, inputs),
  )
  if (totals === null) throw new Unsolvable('the run does not come to its end')
  return totals
}

/** Steps after which the run of a check is stopped: four times the longest of the demo jobs. */
const mostSteps = 50_000

/** Totals of a run; null if it does not come to its end, so that it is tried once. */
const totalsWithin = (run: RunId, plant: Plant, inputs: RunInputs): Totals | null =>
  ifSolvable(() => totalsOf(run, plant, inputs, null, undefined, mostSteps))

/**
 * One charger by its place, or the sides of one link, or a source all day together with everything but mains
 * chargers.
 */
type Alone = { readonly charger: number } | { readonly side: string } | { readonly source: number }

function plantAlone(plant: Plant, alone: Alone): Plant {
  if ('charger' in alone)
    return { ...plant, chargers: plant.chargers.slice(alone.charger, alone.charger + 1) }
  if ('side' in alone)
    return { ...plant, sources: [], sides: plant.sides.filter(({ id }) => id === alone.side) }
  return {
    ...plant,
    sources: plant.sources.slice(alone.source, alone.source + 1).map((source) => ({ ...source, hours: 24 })),
  }
}

/** Which of the lanes of its kind a lane is: the same place as in the plant. */
const placeAmong = (lane: Lane, { lanes }: System): number =>
  lanes.filter(({ kind }) => kind === lane.kind).findIndex(({ id }) => id === lane.id)

/** The mains night of a job on one of its chargers alone, loads on. */
export const nightOn = (lane: ChargerLane, system: System): Totals =>
  runOf(system, 'mains-night', {}, { charger: placeAmong(lane, system) })

/**
 * Hours from the shop's low charge to full on one source, loads on, in mild weather: on mains the run of
 * charger.time, on an alternator or another source the same night with that source alone, all day, an engine
 * under way. Infinity where three days do not fill it.
 */
export function hoursToFullOn(lane: Exclude<Lane, SolarLane>, system: System): number {
  switch (lane.kind) {
    case 'charger':
      return nightOn(lane, system).fullAfterH ?? Infinity
    case 'alternator': {
      const driven = { ...allDay, driveH: 24, idleShare: 0 }
      return runOf(system, 'mains-night', driven, { side: lane.id }).fullAfterH ?? Infinity
    }
    case 'source':
      return runOf(system, 'mains-night', allDay, { source: placeAmong(lane, system) }).fullAfterH ?? Infinity
  }
}
/** Values of a lane that its hours depend on: while one is unknown there is no run. */
export function decidesHours(lane: Exclude<Lane, SolarLane>): readonly number[] {
  switch (lane.kind) {
    case 'charger':
      return [lane.charger.ratedA, lane.charger.absorptionV]
    case 'alternator':
      return [
        lane.alternator.ratedA,
        highestAlternatorV(lane.alternator),
        ...(lane.link.kind === 'dcdc' ? [lane.link.ratedA, lane.link.absorptionV] : []),
      ]
    case 'source':
      return [lane.source.largestA, lane.source.regulatorV]
  }
}
const allDay: Partial<RunInputs> = { mainsH: 0, days: 3 }
