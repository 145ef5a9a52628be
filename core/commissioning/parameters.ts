import { fieldOf } from '#core/collections/held'
import { conductorsOhm } from '#core/wiring/run-ohm'
import type { ValueSource, Run, WiringUnit } from '#core/wiring/network'
import type { Rig } from './rig'

/**
 * One uncertain value of a sound system, with its standard deviation. Each shifts readings, and correlates the
 * readings that share it.
 */
export type Parameter =
  /** Resistance of a run with its joints, Ω. */
  | { readonly kind: 'run'; readonly run: string; readonly sd: number }
  /** A figure of a unit, in its own unit; `of` is the figure of which it is a share, null if it is none. */
  | {
      readonly kind: 'unit'
      readonly unit: string
      readonly field: string
      readonly sd: number
      readonly of: number | null
    }
  /** How the case of an alternator warms, K. */
  | { readonly kind: 'heat'; readonly unit: string; readonly field: 'riseK' | 'airC'; readonly sd: number }
  /** Open-circuit voltage of panels, V. */
  | { readonly kind: 'panels'; readonly unit: string; readonly sd: number }
  /** Standby current, A. */
  | { readonly kind: 'standing'; readonly sd: number }

/** How sure a length or a size is, as a share of the resistance (engineering defaults). */
const shareBy: Readonly<Record<ValueSource, number>> = {
  set: 0.04,
  found: 0.04,
  sized: 0.05,
  usual: 0.15,
  open: 0.25,
}
/** Two sound joints of a run together, Ω: lug, stud and washer (engineering default). */
const jointsOhm = 0.00005
/** A fuse or switch in a run, as a share of its resistance. */
const fittingShare = 0.3
/** Deviation of a chassis's resistance, as a share. */
const chassisShare = 0.3
/** Uncertainty of a measured resistance, as a share: the classes of two meters. */
const measuredShare = 0.05

/** Standard deviations of a unit’s figures: shares of them, or V of a 12 V system (engineering defaults). */
const unitDeviations: Readonly<Partial<Record<WiringUnit['kind'], Readonly<Record<string, Deviation>>>>> = {
  battery: { emfV: { volts: 0.06 }, ohm: { share: 0.15 }, chargingOhm: { share: 0.15 } },
  source: { setV: { volts: 0.04 }, mostA: { share: 0.03 } },
  alternator: {
    setV: { volts: 0.06 },
    idleA: { share: 0.08 },
    cruiseA: { share: 0.06 },
    drawA: { share: 0.15 },
  },
  dcdc: { setV: { volts: 0.04 }, mostA: { share: 0.03 }, efficiency: { share: 0.02 } },
  inverter: { takesW: { share: 0.04 } },
  load: { amps: { share: 0.06 } },
  starter: { amps: { share: 0.15 } },
  diode: { dropV: { volts: 0.05 } },
}
type Deviation = { readonly share: number } | { readonly volts: number }

/** Sun on the day of the test, as a share of full sun (engineering default): it is read from a meter or guessed. */
const sunShare = 0.2
/** Lead that stood in a car gives way more variously than a pack. */
const leadTimes = 2
const heatDeviation = { riseK: 7.5, airC: 5 } as const
const panelShare = 0.04
const standingSd = 0.02

/** Everything of a sound system that is unknown exactly. */
export function parametersOf({ network, heat, panels, nominalV }: Rig): Parameter[] {
  const runs = network.runs.map((run): Parameter => ({
    kind: 'run',
    run: run.id,
    sd: runDeviation(run, network.cableC),
  }))
  const units = network.units.flatMap((unit) => {
    const scale = (network.posts.find(({ id }) => id === unit.plus)?.nominalV ?? nominalV) / 12
    return Object.entries(unitDeviations[unit.kind] ?? {}).flatMap(([field, deviation]): Parameter[] => {
      const sd = deviationIn(unit, field, deviation, scale)
      const of = 'volts' in deviation ? null : figureOf(unit, field)
      return sd > 0 ? [{ kind: 'unit', unit: unit.id, field, sd, of }] : []
    })
  })
  const heats = Object.keys(heat).flatMap((unit): Parameter[] =>
    (['riseK', 'airC'] as const).map((field) => ({ kind: 'heat', unit, field, sd: heatDeviation[field] })),
  )
  const arrays = Object.entries(panels).map(([unit, { openV }]): Parameter => ({
    kind: 'panels',
    unit,
    sd: panelShare * Math.abs(openV),
  }))
  return [...runs, ...units, ...heats, ...arrays, { kind: 'standing', sd: standingSd }]
}

function runDeviation(run: Run, cableC: number): number {
  if (run.measuredOhm !== null) return Math.hypot(measuredShare * run.measuredOhm, jointsOhm)
  if (run.isStud) return Math.hypot(fittingShare * run.fittingOhm, jointsOhm)
  const own = conductorsOhm(run, cableC)
  if (run.areaMm2 === null) return chassisShare * own
  const share = Math.hypot(shareBy[run.lengthKnown], shareBy[run.areaKnown])
  return Math.hypot(share * own, fittingShare * run.fittingOhm, jointsOhm)
}

function deviationIn(unit: WiringUnit, field: string, deviation: Deviation, scale: number): number {
  if ('volts' in deviation)
    return deviation.volts * scale * (isLead(unit) && field === 'emfV' ? leadTimes : 1)
  const value = figureOf(unit, field)
  if (unit.kind === 'source' && unit.from === 'sun' && field === 'mostA') return sunShare * value
  return deviation.share * value * (isLead(unit) ? leadTimes : 1)
}

const isLead = (unit: WiringUnit): boolean => unit.kind === 'battery' && unit.chemistry === 'lead'

/** An uncertain figure never falls below this share. */
export const leastShare = 0.2

const figureOf = (unit: WiringUnit, field: string): number =>
  unit[field as keyof WiringUnit] as unknown as number

/** A unit with one of its figures moved by this many deviations: a share scales with the figure, faults included. */
export function movedUnit(
  unit: WiringUnit,
  { field, sd, of }: Extract<Parameter, { kind: 'unit' }>,
  deviations: number,
): WiringUnit {
  const by = deviations * sd
  if (unit.kind === 'battery' && field === 'emfV')
    return { ...unit, lowV: unit.lowV + by, restV: unit.restV + by, fullV: unit.fullV + by }
  const value = figureOf(unit, field)
  const share = of === null ? 1 : value / of
  return { ...unit, [field]: Math.max(leastShare * value, value + by * share) }
}

/** The rig with one of its parameters moved by this many standard deviations. */
export function movedRig(rig: Rig, parameter: Parameter, deviations: number): Rig {
  const by = deviations * parameter.sd
  switch (parameter.kind) {
    case 'run':
      return withAdded(rig, parameter.run, by)
    case 'unit':
      return {
        ...rig,
        network: {
          ...rig.network,
          units: rig.network.units.map((unit) =>
            unit.id === parameter.unit ? movedUnit(unit, parameter, deviations) : unit,
          ),
        },
      }
    case 'heat': {
      const heat = fieldOf(rig.heat, parameter.unit)
      return {
        ...rig,
        heat: { ...rig.heat, [parameter.unit]: { ...heat, [parameter.field]: heat[parameter.field] + by } },
      }
    }
    case 'panels': {
      const own = fieldOf(rig.panels, parameter.unit)
      const openV = own.openV + by * Math.sign(own.openV)
      return { ...rig, panels: { ...rig.panels, [parameter.unit]: { ...own, openV } } }
    }
    case 'standing':
      return { ...rig, standingA: Math.max(0, rig.standingA + by) }
  }
}

/** The rig with this much more resistance in a run, Ω. */
export const withAdded = (rig: Rig, run: string, ohm: number): Rig => ({
  ...rig,
  addedOhm: { ...rig.addedOhm, [run]: (rig.addedOhm[run] ?? 0) + ohm },
})
