import { partId } from '#core/job/document'
import { availableA } from '#core/system/alternators'
import { highestAlternatorV } from '#core/system/currents'
import type { View } from '#core/system/scene'
import { usualM, type Builder } from './builder'
import type { Joint } from './house'
import { linkOf } from './links'

/**
 * Resistance of a lead-acid battery of a cranking current, Ω: from 12.6 V to 7.2 V at its label's current, for 12
 * V.
 */
const crankingOhm = (cca: number, nominalV: number): number => (5.4 * nominalV) / 12 / Math.max(1, cca)
/** Lead, low, rested and full, V of 12. */
const leadV = { low: 12.2, rest: 12.65, full: 12.9 } as const

/** Current of full lead-acid at its charging voltage, as a share of its ampere-hours (engineering default). */
const fullLeadTakes = 0.05

/** The engine's side: each alternator with its battery and its starter, and the link to the house. */
export function enginesOf(build: Builder, house: Joint): void {
  const { many, one, craft } = build.system
  if (many.alternators.length > 0) {
    build.post('chassis', 'chassis', {
      name:
        craft === 'vessel' ? 'Engine block' : craft === 'trailer' ? 'Chassis of the tow vehicle' : 'Chassis',
      pole: 'negative',
      state: 'found',
      place: craft === 'vessel' ? 'engine' : null,
      opposite: house.plus,
      nominalV: house.nominalV,
    })
    // A trailer’s negative reaches the tow vehicle by its plug alone.
    if (one.use.negatives === 'common' && craft !== 'trailer') bondOf(build, house)
  }
  for (const alternator of many.alternators) engineOf(build, house, alternator)
}

/**
 * The one bond of the house’s negative: afloat to the engine block, ashore to the body, whose metal is a conductor
 * too.
 */
function bondOf(build: Builder, house: Joint): void {
  const { craft, many } = build.system
  if (craft === 'vessel') {
    build.run('bond', house.minus, 'chassis', { role: 'bond', usualM: usualM.bond })
    return
  }
  build.post('body', 'chassis', {
    name: craft === 'motorcycle' ? 'Frame, at the battery' : 'Body, at the house bank',
    pole: 'negative',
    state: 'found',
    opposite: house.plus,
    nominalV: house.nominalV,
  })
  build.run('bond', house.minus, 'body', { role: 'bond', usualM: usualM.bond })
  const cable = many.conductors.find(({ $of }) => $of?.startsWith('links/')) ?? null
  build.run('body-metal', 'body', 'chassis', { role: 'return', state: 'found', cable, byChassis: true })
}

function engineOf(build: Builder, house: Joint, alternator: View<'alternators'>): void {
  const { many } = build.system
  const id = partId(alternator.$path)
  const nominalV = Number(alternator.nominalV)
  const starting = many.startingBatteries.find(({ $of }) => $of === alternator.$path)
  const link = many.links.find(({ $of }) => $of === alternator.$path)
  const battery = starting?.present === 'yes' ? startingBatteryOf(build, starting, nominalV) : null
  const opposite = battery?.minus ?? 'chassis'
  machineOf(build, alternator, opposite)
  if (battery && link?.kind !== 'diode')
    build.run(`${id}-feed`, `${id}-plus`, battery.plus, {
      leastA: alternator.ratedA,
      role: 'charge',
      state: 'found',
      of: alternator.$path,
      usualM: usualM.crank,
    })
  if (starting && (starting.present === 'yes' || starting.present === 'no'))
    starterOf(build, starting, battery?.plus ?? house.plus, battery ? 'chassis' : house.minus, nominalV)
  if (link && link.kind !== 'none')
    linkOf(build, house, {
      link,
      alternator: id,
      nominalV,
      opposite,
      head: battery?.plus ?? `${id}-plus`,
      headMinus: battery?.minus ?? 'chassis',
      battery: battery !== null,
      ratedA: alternator.ratedA,
      machinePlus: `${id}-plus`,
    })
}

/** The alternator itself, between its terminal and the engine. */
function machineOf(build: Builder, alternator: View<'alternators'>, opposite: string): void {
  const { rules } = build.system
  const id = partId(alternator.$path)
  build.post(`${id}-plus`, 'terminal', {
    name: alternator.$name,
    of: alternator.$path,
    state: build.stateOf(alternator.$path),
    place: 'engine',
    opposite,
    nominalV: Number(alternator.nominalV),
  })
  const drawA = alternator.vehicleDrawA
  build.unit({
    kind: 'alternator',
    id,
    name: alternator.$name,
    of: alternator.$path,
    plus: `${id}-plus`,
    minus: 'chassis',
    state: build.stateOf(alternator.$path),
    setV: highestAlternatorV(alternator),
    ratedA: alternator.ratedA,
    idleA: availableA(alternator, 'idle', rules) + drawA,
    cruiseA: availableA(alternator, 'cruise', rules) + drawA,
    drawA,
  })
}

function startingBatteryOf(
  build: Builder,
  starting: View<'startingBatteries'>,
  nominalV: number,
): { readonly plus: string; readonly minus: string } {
  const id = partId(starting.$path)
  const [plus, minus] = [`${id}-plus`, `${id}-minus`]
  const own = { of: starting.$path, state: build.stateOf(starting.$path), nominalV } as const
  build.post(plus, 'battery', { ...own, name: `${starting.$name}, positive`, opposite: minus })
  const name = `${starting.$name}, negative`
  build.post(minus, 'battery', { ...own, name, pole: 'negative', opposite: plus })
  const ohm = crankingOhm(starting.cca, nominalV)
  build.unit({
    kind: 'battery',
    id,
    name: starting.$name,
    of: starting.$path,
    plus,
    minus,
    state: own.state,
    chemistry: 'lead',
    serves: 'engine',
    lowV: (leadV.low * nominalV) / 12,
    restV: (leadV.rest * nominalV) / 12,
    fullV: (leadV.full * nominalV) / 12,
    ohm,
    shortOhm: ohm,
    chargingOhm: ((14.4 - leadV.rest) * nominalV) / 12 / Math.max(0.1, fullLeadTakes * starting.ah),
    label: `${starting.ah} Ah`,
  })
  build.run(`${id}-earth`, minus, 'chassis', {
    role: 'return',
    state: 'found',
    of: starting.$path,
    usualM: usualM.earth,
  })
  return { plus, minus }
}

function starterOf(
  build: Builder,
  starting: View<'startingBatteries'>,
  from: string,
  minus: string,
  nominalV: number,
): void {
  const id = partId(starting.$path)
  const name = 'Starter motor'
  build.post(`${id}-starter-plus`, 'terminal', {
    name,
    of: starting.$path,
    state: 'found',
    place: 'engine',
    opposite: minus,
    nominalV,
  })
  build.unit({
    kind: 'starter',
    id: `${id}-starter`,
    name,
    of: starting.$path,
    plus: `${id}-starter-plus`,
    minus,
    state: 'found',
    amps: starting.engineNeedA,
  })
  build.run(`${id}-crank`, from, `${id}-starter-plus`, {
    role: 'cranking',
    state: 'found',
    of: starting.$path,
    usualM: usualM.crank,
  })
}
