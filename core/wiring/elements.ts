import { restedLoads, runsEngine, type Case } from './cases'
import type { Element } from '#core/circuit/circuit'
import { battery, converter, current, diode, held, power, resistance } from '#core/circuit/law'
import type { AlternatorUnit, BatteryUnit, DcdcUnit, Network, WiringUnit } from './network'

/**
 * How a regulator gives way, V/A: from no load to full, the voltage of a usual machine falls by some 0.2 V
 * (engineering default, as in the runs).
 */
const regulatorOhm = 0.003
/** A diode's own resistance beyond its drop, Ω. */
const diodeOhm = 0.001
/** Over which a unit at its lowest voltage takes its load back, V of 12. */
const bandV = 0.3
/** A starter motor at its cranking current is a resistance: it drops this much, V of 12. */
const crankingV = 9.6

/** A unit in the circuit of a case. */
export function elementsOf(unit: WiringUnit, at: Case, network: Network): Element[] {
  const two = (law: Element['law']): Element[] => [{ id: unit.id, nodes: [unit.plus, unit.minus], law }]
  const scale = (): number => (network.posts.find(({ id }) => id === unit.plus)?.nominalV ?? 12) / 12
  const charging = runsEngine(at)
  switch (unit.kind) {
    case 'battery':
      if (at.kind === 'short') return two(battery(unit.fullV, unit.shortOhm))
      return two(battery(emfV(unit, at), unit.ohm, unit.chargingOhm))
    case 'source':
      if (at.kind === 'short') return two(pushed(unit.mostA))
      return at.kind === 'together' || at.id === `charge-${unit.id}`
        ? two(held(unit.setV, unit.mostA, regulatorOhm))
        : []
    case 'alternator':
      return charging ? alternatorAt(unit, at) : []
    case 'dcdc':
      return charging || (at.kind === 'charge' && unit.alternator === null)
        ? dcdcAt(unit, at, scale(), network)
        : []
    case 'inverter':
      return at.kind === 'loads' ? two(power(unit.takesW, unit.lowestV, bandV * scale())) : []
    case 'load':
      return at.kind === 'loads' && unit.amps > 0 ? two(current(unit.amps, 6 * scale())) : []
    case 'starter':
      return at.id === `cranking-${unit.id}` ? two(resistance((crankingV * scale()) / unit.amps)) : []
    case 'diode':
      return [{ id: unit.id, nodes: [unit.plus, unit.out], law: diode(unit.dropV, diodeOhm) }]
  }
}

/**
 * A battery of the house is low when it is charged or loaded; one that turns an engine is full soon after the start.
 */
export function emfV({ serves, lowV, restV, fullV }: BatteryUnit, { kind, id }: Case): number {
  if (kind === 'rest') return fullV
  return kind === 'cranking' || id === restedLoads || serves === 'engine' ? restV : lowV
}

/** A source without its regulator gives all its current at any voltage. */
const pushingV = 1000
const pushed = (mostA: number): Element['law'] => battery(pushingV, pushingV / Math.max(1e-3, mostA))

/** An alternator gives its output at a speed. Engine and lights draw from it at its terminals. */
function alternatorAt(unit: AlternatorUnit, at: Case): Element[] {
  const nodes = [unit.plus, unit.minus]
  const mostA = at.id === 'idle' ? unit.idleA : unit.cruiseA
  return [
    {
      id: unit.id,
      nodes,
      law: at.kind === 'short' ? pushed(mostA) : held(unit.setV, mostA, regulatorOhm),
    },
    ...(unit.drawA > 0 && at.kind !== 'short'
      ? [{ id: `${unit.id}-draw`, nodes, law: current(unit.drawA, 6) }]
      : []),
  ]
}

/** A DC-DC while its alternator runs. In a short it counts with its full output. */
function dcdcAt(unit: DcdcUnit, at: Case, scale: number, { units }: Network): Element[] {
  if (at.kind === 'short') return [{ id: unit.id, nodes: [unit.plus, unit.minus], law: pushed(unit.mostA) }]
  const feeding = units.find(
    (one): one is AlternatorUnit => one.kind === 'alternator' && one.id === unit.alternator,
  )
  if (unit.alternator !== null && (!feeding || feeding.setV <= unit.lowestInputV)) return []
  return [
    {
      id: unit.id,
      nodes: [unit.plus, unit.minus, unit.inPlus, unit.inMinus],
      law: converter({
        setV: unit.setV,
        mostA: unit.mostA,
        ohm: regulatorOhm,
        efficiency: unit.efficiency,
        fullV: unit.lowestInputV + bandV * scale,
        bandV: bandV * scale,
      }),
    },
  ]
}
