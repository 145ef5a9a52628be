import { isOldLithium, oldBankStays } from '#core/system/energy'
import { openCircuitV, typicalPackOhm } from '#core/physics/lfp'
import type { ShopRules } from '#core/rules/rules'
import { nameInSentence } from '#core/units/format'
import { faultResistanceOhm } from '../short'
import { usualM, type Builder } from './builder'
import type { Joint } from './house'

/** The old battery, if it stays. */
export function leadOf(build: Builder, house: Joint): void {
  if (oldBankStays(build.system)) joinedLead(build, house)
  if (build.system.one.use.mixed === 'dcdc') leadBehindDcdc(build, house)
}

const name = 'Old battery'
const of = 'houseBank'

/** In parallel with the lithium: its own fuse and its own switch, so that either battery can be taken off. */
function joinedLead(build: Builder, house: Joint): void {
  const byRelay = build.system.one.use.mixed === 'relay'
  const fitted = leadPosts(build)
  build.fitting('lead-fuse', 'fuse', {
    ...fitted,
    name: 'Fuse of the old battery',
    reason: 'Each battery on the bar has its own fuse.',
  })
  build.fitting('lead-switch', byRelay ? 'relay' : 'switch', {
    ...fitted,
    name: byRelay ? 'Relay of the old battery' : 'Switch of the old battery',
    reason: 'Either battery can be taken off alone.',
  })
  const main = { role: 'main', of } as const
  build.run('lead-lead', 'lead-plus', 'lead-fuse', { ...main, usualM: usualM.lead })
  build.run('lead-feed', 'lead-fuse', 'lead-switch', { ...main, usualM: usualM.main })
  build.run('lead-switched', 'lead-switch', house.plus, { ...main, usualM: usualM.main })
  build.run('lead-return', 'lead-minus', house.minus, {
    ...main,
    usualM: usualM.bond,
    returnOf: 'lead-lead',
  })
  leadUnit(build, 'house')
}

/** Output voltage of a DC-DC that keeps lead-acid full, and its lowest input, V of 12 (engineering defaults). */
const keeps = { setV: 14.1, fromV: 12.4 } as const

/**
 * A reserve battery kept full by a DC-DC from the bar: a fuse at each end, because there is a battery beyond both.
 */
function leadBehindDcdc(build: Builder, house: Joint): void {
  const fitted = leadPosts(build)
  keeperPosts(build, house, fitted)
  keeperRuns(build, house)
  keeperUnit(build, house, fitted.nominalV)
  leadUnit(build, 'reserve')
}

/** The DC-DC that keeps the old battery full. */
const keeper = 'lead-dcdc'
const keeperMinus = `${keeper}-minus`
const keeperName = 'DC-DC to the old battery'

function keeperPosts(build: Builder, house: Joint, fitted: ReturnType<typeof leadPosts>): void {
  const input = { of, nominalV: house.nominalV, opposite: house.minus } as const
  build.fitting(`${keeper}-in-fuse`, 'fuse', {
    ...input,
    name: `Fuse of ${nameInSentence(keeperName)}, input`,
    reason: 'The lithium feeds a fault in this cable.',
  })
  build.post(`${keeper}-in-plus`, 'terminal', { ...input, name: `${keeperName}, input` })
  build.post(keeperMinus, 'terminal', {
    ...input,
    name: `${keeperName}, negative`,
    pole: 'negative',
    opposite: `${keeper}-in-plus`,
  })
  build.post(`${keeper}-out-plus`, 'terminal', {
    ...fitted,
    name: `${keeperName}, output`,
    opposite: keeperMinus,
  })
  build.fitting('lead-fuse', 'fuse', {
    ...fitted,
    name: 'Fuse of the old battery',
    reason: 'The old battery feeds a fault in this cable.',
  })
}

function keeperRuns(build: Builder, house: Joint): void {
  const ratedA = build.system.one.use.betweenA
  const charge = { role: 'charge', of } as const
  build.run(`${keeper}-in-stub`, house.plus, `${keeper}-in-fuse`, {
    ...charge,
    side: 'input',
    usualM: usualM.stub,
    like: `${keeper}-in-feed`,
  })
  build.run(`${keeper}-in-feed`, `${keeper}-in-fuse`, `${keeper}-in-plus`, {
    ...charge,
    side: 'input',
    usualM: usualM.bond,
  })
  build.run(`${keeper}-return`, keeperMinus, house.minus, {
    role: 'return',
    of,
    returnOf: `${keeper}-in-feed`,
  })
  build.run(`${keeper}-out-feed`, `${keeper}-out-plus`, 'lead-fuse', {
    ...charge,
    side: 'output',
    usualM: usualM.bond,
    leastA: ratedA,
  })
  build.run('lead-lead', 'lead-fuse', 'lead-plus', {
    ...charge,
    usualM: usualM.lead,
    leastA: ratedA,
    like: `${keeper}-out-feed`,
  })
  build.run('lead-return', 'lead-minus', keeperMinus, { role: 'return', of, returnOf: `${keeper}-out-feed` })
}

function keeperUnit(build: Builder, house: Joint, leadV: number): void {
  const { one, rules } = build.system
  build.unit({
    kind: 'dcdc',
    id: keeper,
    name: keeperName,
    of,
    plus: `${keeper}-out-plus`,
    minus: keeperMinus,
    inPlus: `${keeper}-in-plus`,
    inMinus: keeperMinus,
    state: 'new',
    setV: (keeps.setV * leadV) / 12,
    mostA: one.use.betweenA,
    efficiency: rules.dcdcEfficiency / 100,
    lowestInputV: (keeps.fromV * house.nominalV) / 12,
    alternator: null,
  })
}

/** The posts of the old battery. @returns the common properties of a fitting next to it */
function leadPosts(build: Builder) {
  const nominalV = Number(build.system.one.houseBank.nominalV)
  const own = { of, state: 'found', nominalV } as const
  build.post('lead-plus', 'battery', { ...own, name: `${name}, positive`, opposite: 'lead-minus' })
  build.post('lead-minus', 'battery', {
    ...own,
    name: `${name}, negative`,
    pole: 'negative',
    opposite: 'lead-plus',
  })
  return { of, nominalV, opposite: 'lead-minus' } as const
}

/**
 * Current of low lead-acid at the top of its charging voltage, as a share of its ampere-hours (engineering
 * default).
 */
const lowLeadTakes = 0.25
const takesOhm = (nominalV: number, ah: number): number =>
  ((14.4 - 12.2) * nominalV) / 12 / Math.max(0.1, lowLeadTakes * ah)

function leadUnit(build: Builder, serves: 'house' | 'reserve'): void {
  const { one, rules } = build.system
  const { houseBank } = one
  const nominalV = Number(houseBank.nominalV)
  const ah = houseBank.ahEach * houseBank.parallel
  if (isOldLithium(build.system)) {
    build.unit({ ...oldLithium(nominalV, ah, rules), name, of, serves, label: oldLabel(build) })
    return
  }
  // Lead of this many ampere-hours: some 0.5 Ω of a cell's ampere-hour, six cells a 12 V battery (engineering
  // default).
  const ohm = (0.5 * nominalV) / 2 / Math.max(1, ah)
  build.unit({
    kind: 'battery',
    id: 'lead',
    name,
    of,
    plus: 'lead-plus',
    minus: 'lead-minus',
    state: 'found',
    chemistry: 'lead',
    serves,
    lowV: (12.2 * nominalV) / 12,
    restV: (12.65 * nominalV) / 12,
    fullV: (12.9 * nominalV) / 12,
    ohm,
    shortOhm: faultResistanceOhm(ohm, rules),
    chargingOhm: takesOhm(nominalV, ah),
    label: oldLabel(build),
  })
}

const oldLabel = ({ system }: Builder): string => {
  const { parallel, ahEach } = system.one.houseBank
  return `${parallel > 1 ? `${parallel} × ` : ''}${ahEach} Ah`
}

/** A lithium battery that was there before. */
function oldLithium(nominalV: number, ah: number, rules: ShopRules) {
  const ohm = typicalPackOhm(Math.max(1, ah), nominalV)
  return {
    kind: 'battery',
    id: 'lead',
    plus: 'lead-plus',
    minus: 'lead-minus',
    state: 'found',
    chemistry: 'lithium',
    lowV: openCircuitV(rules.lowSoc / 100, nominalV),
    restV: openCircuitV(0.5, nominalV),
    fullV: openCircuitV(1, nominalV),
    ohm,
    shortOhm: faultResistanceOhm(ohm, rules),
    chargingOhm: ohm,
  } as const
}
