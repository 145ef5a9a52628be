import { nameInSentence } from '#core/units/format'
import { partId } from '#core/job/document'
import { dcAtOnceA } from '#core/system/energy'
import { arrayA } from '#core/system/currents'
import { panelId, type LoadUnit, type PartState, type Role, type SourceUnit } from '../network'
import type { View } from '#core/system/scene'
import { barOf, loadBarsOf } from './bars'
import { usualM, type Builder } from './builder'
import { leadOf } from './lead'
import { nearFuse } from './surveyed'
import type { Joint } from './house'

/** From this current on, a DC load has a separate cable, A; the others are on the fuse panel. */
const ownBranchFromA = 20

interface BranchOf {
  readonly id: string
  readonly name: string
  readonly of: string | null
  readonly role: Role
  readonly state: PartState
  readonly cableState: PartState
  readonly cable: View<'conductors'> | null
  readonly reason: string
  /** Largest current of its unit, A. */
  readonly givesA?: number
}

/** A branch of the bar: its fuse there, its cable, its return. Gives the terminals of the unit. */
function branch(
  build: Builder,
  joint: Joint,
  at: BranchOf,
): { readonly plus: string; readonly minus: string } {
  const { id, name, of, role, cable, givesA = 0 } = at
  const { plus, minus, nominalV } = barOf(build, joint, `${id}-fuse`, role === 'branch')
  const [unitPlus, unitMinus] = [`${id}-plus`, `${id}-minus`]
  const own = { of, nominalV } as const
  build.fitting(`${id}-fuse`, 'fuse', {
    ...own,
    ...nearFuse(build, cable),
    opposite: minus,
    name: `Fuse of ${nameInSentence(name)}`,
    reason: at.reason,
  })
  build.post(unitPlus, 'terminal', { ...own, state: at.state, name, opposite: unitMinus })
  const negative = { name: `${name}, negative`, pole: 'negative', opposite: unitPlus } as const
  build.post(unitMinus, 'terminal', { ...own, ...negative, state: at.state })
  build.run(`${id}-stub`, plus, `${id}-fuse`, {
    role,
    of,
    usualM: usualM.stub,
    like: `${id}-feed`,
    leastA: givesA,
  })
  build.run(`${id}-feed`, `${id}-fuse`, unitPlus, { role, state: at.cableState, of, cable, leastA: givesA })
  const chassis = build.returnsByChassis(`${id}-feed`, cable) && build.has('chassis')
  build.run(`${id}-return`, unitMinus, chassis ? 'chassis' : build.landingOf(`${id}-feed`, minus), {
    role: 'return',
    state: at.cableState,
    of,
    returnOf: `${id}-feed`,
    byChassis: chassis,
    cable: chassis ? null : cable,
  })
  return { plus: unitPlus, minus: unitMinus }
}

export function branchesOf(build: Builder, house: Joint): void {
  chargersOf(build, house)
  sunOf(build, house)
  othersOf(build, house)
  if (draws(build)) loadBarsOf(build, house)
  invertersOf(build, house)
  loadsOf(build, house)
  addedOf(build, house)
  leadOf(build, house)
}

/** The DC loads: those with a separate branch, and the total of the panel with the others, A. */
function directLoads({ system }: Builder): {
  readonly own: readonly View<'loads'>[]
  readonly circuits: number
  readonly panelA: number
} {
  const dc = system.many.loads.filter(({ supply }) => supply === 'dc')
  const own = dc.filter(({ amps }) => amps >= ownBranchFromA)
  const shared = dc.filter(({ amps }) => amps < ownBranchFromA)
  const restA = dcAtOnceA(system) - togetherA(own)
  return { own, circuits: shared.length, panelA: Math.max(togetherA(shared), restA) }
}

/** Largest current of the loads at one time, A. */
const togetherA = (loads: readonly View<'loads'>[]): number =>
  loads.filter(({ together }) => together === 'yes').reduce((sum, { amps }) => sum + amps, 0)

/** Whether anything draws from the house. */
function draws(build: Builder): boolean {
  const { inverters, branches } = build.system.many
  const { own, panelA } = directLoads(build)
  return inverters.length + branches.length + own.length > 0 || panelA > 0
}

function source(
  build: Builder,
  joint: Joint,
  unit: Omit<SourceUnit, 'plus' | 'minus' | 'kind' | 'state'>,
  path: string,
  what: string,
): void {
  const cable = build.system.many.conductors.find(({ $of }) => $of === path) ?? null
  const state = build.stateOf(path)
  const ends = branch(build, joint, {
    id: unit.id,
    name: unit.name,
    of: path,
    role: 'charge',
    state,
    cableState: state,
    cable,
    reason: `The battery feeds a fault in the cable of ${what}.`,
    givesA: unit.mostA,
  })
  build.unit({ ...unit, ...ends, kind: 'source', state })
}

/** Where a charger of the starting battery lands: on the first that is there; null if none is. */
function startingJoint(build: Builder): Joint | null {
  const battery = build.units.find((unit) => unit.kind === 'battery' && unit.serves === 'engine')
  const post = battery && build.posts.get(battery.plus)
  return post ? { plus: battery.plus, minus: battery.minus, nominalV: post.nominalV } : null
}

function chargersOf(build: Builder, house: Joint): void {
  for (const charger of build.system.many.chargers) {
    const joint = charger.feeds === 'starting' ? startingJoint(build) : house
    if (!joint) continue
    source(
      build,
      joint,
      {
        id: partId(charger.$path),
        name: charger.$name,
        of: charger.$path,
        from: 'mains',
        setV: charger.absorptionV,
        mostA: charger.ratedA,
      },
      charger.$path,
      'the charger',
    )
  }
}

function sunOf(build: Builder, house: Joint): void {
  for (const solar of build.system.many.solar) {
    if (solar.through !== 'own') continue
    const mostA = Math.min(solar.ratedA, arrayA(solar, build.system.bank.lowV))
    source(
      build,
      house,
      {
        id: partId(solar.$path),
        name: solar.$name,
        of: solar.$path,
        from: 'sun',
        setV: solar.absorptionV,
        mostA,
      },
      solar.$path,
      'the controller',
    )
  }
}

function othersOf(build: Builder, house: Joint): void {
  for (const other of build.system.many.sources)
    source(
      build,
      house,
      {
        id: partId(other.$path),
        name: other.$name,
        of: other.$path,
        from: 'other',
        setV: other.regulatorV,
        mostA: other.largestA,
      },
      other.$path,
      'this source',
    )
}

function invertersOf(build: Builder, house: Joint): void {
  for (const inverter of build.system.many.inverters) {
    const id = partId(inverter.$path)
    const state = build.stateOf(inverter.$path)
    const cable = build.system.many.conductors.find(({ $of }) => $of === inverter.$path) ?? null
    const ends = branch(build, house, {
      id,
      name: inverter.$name,
      of: inverter.$path,
      role: 'branch',
      state,
      cableState: state,
      cable,
      reason: 'The inverter draws more than anything else: its cable has its own fuse.',
    })
    build.unit({
      kind: 'inverter',
      id,
      name: inverter.$name,
      of: inverter.$path,
      ...ends,
      state,
      takesW: inverter.continuousW / (inverter.efficiency / 100),
      surgeW: inverter.surgeW / (inverter.efficiency / 100),
      surgeS: inverter.surgeS,
      // An inverter without a cut-off still stops long before a third of its voltage.
      lowestV: Math.max(inverter.cutOffV, house.nominalV / 3),
    })
  }
}

function loadsOf(build: Builder, house: Joint): void {
  const { own, circuits, panelA } = directLoads(build)
  const load = (
    id: string,
    name: string,
    of: string | null,
    state: PartState,
    figures: Pick<LoadUnit, 'amps' | 'surge' | 'isPanel'>,
  ): void => {
    const ends = branch(build, house, {
      id,
      name,
      of,
      role: 'branch',
      state,
      cableState: state,
      cable: null,
      reason: `The battery feeds a fault in the cable of ${figures.isPanel ? 'the panel' : 'this load'}.`,
    })
    build.unit({ kind: 'load', id, name, of, ...ends, state, ...figures })
  }
  for (const { $path, $name, amps, surge } of own)
    load(partId($path), $name, $path, build.stateOf($path), { amps, surge, isPanel: false })
  if (panelA > 0) {
    const name = `Fuse panel${circuits > 1 ? `, ${circuits} circuits` : ''}`
    load(panelId, name, null, 'found', { amps: panelA, surge: 1, isPanel: true })
  }
}

const addedNames = { spare: 'Spare way', fans: 'Fans', socket: 'Sockets', other: 'Added branch' } as const

function addedOf(build: Builder, house: Joint): void {
  for (const added of build.system.many.branches) {
    const id = partId(added.$path)
    const name = added.$ownName ?? addedNames[added.what]
    const ends = branch(build, house, {
      id,
      name,
      of: added.$path,
      role: 'branch',
      state: 'new',
      cableState: 'new',
      cable: null,
      reason: 'A branch of its own has its own fuse.',
    })
    build.unit({
      kind: 'load',
      id,
      name,
      of: added.$path,
      ...ends,
      state: 'new',
      amps: added.what === 'spare' ? 0 : added.amps,
      surge: 1,
      isPanel: false,
    })
  }
}
