import { elementAt } from '#core/collections/held'
import { oldBankStays } from '#core/system/energy'
import type { FittingPlace, Post } from '../network'
import { faultResistanceOhm } from '../short'
import { usualM, type Builder } from './builder'

/** The posts where sources and loads are joined to the house bank. */
export interface Joint {
  readonly plus: string
  readonly minus: string
  readonly nominalV: number
}

/** Shares of charge for which a battery is looked at: rested, and full. */
const restSoc = 0.9

/** Common values of the posts of a bank. */
interface BankAt {
  readonly build: Builder
  readonly name: string
  readonly common: {
    readonly of: 'candidate'
    readonly nominalV: number
    readonly place: FittingPlace | null
  }
}

/** The bank, each battery of a parallel one with its own fuse. Gives its positive and negative post. */
function bankOf(build: Builder): void {
  const { bank, one } = build.system
  const { parallel } = bank.each
  const name = bank.each.$ownName ?? 'New battery'
  const place = one.place.$entered('where') as FittingPlace | null
  const at: BankAt = { build, name, common: { of: 'candidate', nominalV: bank.nominalV, place } }
  const kind = parallel === 1 ? 'battery' : 'bar'
  build.post('bank-minus', kind, {
    ...at.common,
    name: `${name}, negative`,
    pole: 'negative',
    opposite: 'bank-plus',
  })
  build.post('bank-plus', kind, { ...at.common, name: `${name}, positive`, opposite: 'bank-minus' })
  if (parallel === 1) batteryUnit(build, 'bank', name)
  else parallelBank(at, parallel)
}

/** A battery of the bank between its two posts, which have its id and `-plus` and `-minus`. */
function batteryUnit(build: Builder, id: string, name: string): void {
  const { bank, rules } = build.system
  const { each } = bank
  const ohm = bank.ohm * each.parallel
  build.unit({
    kind: 'battery',
    id,
    name,
    of: 'candidate',
    plus: `${id}-plus`,
    minus: `${id}-minus`,
    state: 'new',
    chemistry: 'lithium',
    serves: 'house',
    lowV: bank.ocv(rules.lowSoc / 100),
    restV: bank.ocv(restSoc),
    fullV: bank.ocv(1),
    ohm,
    shortOhm: faultResistanceOhm(ohm, rules),
    chargingOhm: ohm,
    label: `${each.ahEach} Ah${each.series > 1 ? `, ${each.series} in series` : ''}`,
  })
}

function parallelBank(at: BankAt, count: number): void {
  const { build } = at
  const { layout } = build.system.bank.each
  for (let i = 1; i <= count; i++) fusedBattery(at, i, count)
  const link = { role: 'main', of: 'candidate', usualM: usualM.link } as const
  for (let i = 1; i <= count; i++) {
    const { plusTo, minusTo } = joinedTo(i, count, layout)
    const { plusShare, minusShare } = sharesOf(i, count, layout)
    build.run(`bank-${i}-link`, `bank-${i}-fuse`, plusTo, {
      ...link,
      like: `bank-${i}-lead`,
      leastA: leastA(build.system) * plusShare,
    })
    build.run(`bank-${i}-return`, `bank-${i}-minus`, minusTo, {
      ...link,
      returnOf: `bank-${i}-link`,
      leastA: leastA(build.system) * minusShare,
    })
  }
}

/** A battery of a parallel bank with its posts, its fuse and its lead. */
function fusedBattery({ build, name, common }: BankAt, i: number, count: number): void {
  const id = `bank-${i}`
  const plus = { ...common, opposite: 'bank-minus' }
  build.post(`${id}-minus`, 'battery', {
    ...common,
    name: `${name} no. ${i}, negative`,
    pole: 'negative',
    opposite: `${id}-plus`,
  })
  build.post(`${id}-plus`, 'battery', {
    ...plus,
    name: `${name} no. ${i}, positive`,
    opposite: `${id}-minus`,
  })
  build.fitting(`${id}-fuse`, 'fuse', {
    ...plus,
    name: `Fuse of battery ${i}`,
    isOfOneBattery: true,
    reason: 'A fault in one battery of a parallel bank is fed by all the others: each has its own fuse.',
  })
  batteryUnit(build, id, `${name} no. ${i}`)
  build.run(`${id}-lead`, `${id}-plus`, `${id}-fuse`, {
    role: 'main',
    of: 'candidate',
    usualM: usualM.lead,
    leastA: leastA(build.system) / count,
  })
}

/** Where battery `i` of a row is joined to: the posts of the bank, or the next in the row. */
function joinedTo(
  i: number,
  count: number,
  layout: string,
): { readonly plusTo: string; readonly minusTo: string } {
  if (layout === 'busbar') return { plusTo: 'bank-plus', minusTo: 'bank-minus' }
  const plusTo = i === 1 ? 'bank-plus' : `bank-${i - 1}-fuse`
  if (layout === 'ladder') return { plusTo, minusTo: i === 1 ? 'bank-minus' : `bank-${i - 1}-minus` }
  return { plusTo, minusTo: i === count ? 'bank-minus' : `bank-${i + 1}-minus` }
}

/** Share of the current of the bank in each lead of battery `i`: in a row it carries that of the ones behind it too. */
function sharesOf(
  i: number,
  count: number,
  layout: string,
): { readonly plusShare: number; readonly minusShare: number } {
  if (layout === 'busbar') return { plusShare: 1 / count, minusShare: 1 / count }
  const plusShare = (count - i + 1) / count
  return { plusShare, minusShare: layout === 'ladder' ? plusShare : i / count }
}

/**
 * Whether bars and a main switch would be needless: a motorcycle, whose few leads go to the battery. Where old lead
 * is joined to it, each of the two must have its fuse.
 */
const isSmall = (system: Builder['system']): boolean => system.craft === 'motorcycle' && !oldBankStays(system)

/** The bank by the trade's order: its fuse, its switch, the bar; in the negative the shunt, and nothing before it. */
export function houseOf(build: Builder): Joint {
  const { system } = build
  const { bank } = system
  const { nominalV } = bank
  bankOf(build)
  const small = isSmall(system)
  const shunted = system.one.use.$entered('monitor') === 'shunt'
  const minus = small && !shunted ? 'bank-minus' : 'bar-minus'
  const plus = small ? 'bank-plus' : positiveOf(build, minus)
  if (minus === 'bar-minus') negativeOf(build, shunted, small)
  return { plus, minus, nominalV }
}

/** Least current of the main leads, A: a share of the battery’s continuous current, even if the loads need less. */
const leastA = ({ bank, rules }: Builder['system']): number => (bank.continuousA * rules.mainShare) / 100

function positiveOf(build: Builder, minus: string): string {
  const { system } = build
  const { bank, one } = system
  const own = { nominalV: bank.nominalV, opposite: minus }
  build.fitting('main-fuse', 'fuse', {
    ...own,
    name: 'Main fuse',
    reason: 'A lithium bank gives thousands of amperes into a short. Its fuse at the post interrupts them.',
  })
  build.fitting('main-switch', 'switch', {
    ...own,
    name: 'Main switch',
    reason: 'One switch leaves nothing drawing, and parts the bank in a fire.',
  })
  const steps = ['bank-plus', 'main-fuse', 'main-switch']
  if (one.use.mixed === 'hybrid' && one.use.chargeStop === 'yes') {
    build.fitting('main-stop', 'stop', {
      ...own,
      name: 'Charge and discharge stop',
      reason: 'The battery’s signal parts the lithium from the lead before its own electronics must.',
    })
    steps.push('main-stop')
  }
  build.fitting('bar-plus', 'bar', {
    ...own,
    name: 'Positive bar',
    reason: 'Every branch leaves here through its own fuse.',
  })
  steps.push('bar-plus')
  steps.slice(1).forEach((to, i) => {
    build.run(i === 0 ? 'main-lead' : `main-feed-${i}`, elementAt(steps, i), to, {
      role: 'main',
      usualM: i === 0 ? usualM.lead : usualM.main,
      leastA: leastA(system),
    })
  })
  return 'bar-plus'
}

function negativeOf(build: Builder, shunted: boolean, small: boolean): void {
  const { nominalV } = build.system.bank
  const own = { nominalV, opposite: 'bank-plus', pole: 'negative' } as const
  if (shunted) shuntOf(build, own)
  build.fitting('bar-minus', 'bar', {
    ...own,
    name: 'Negative bar',
    reason: shunted ? 'Every return ends here, behind the shunt.' : 'Every return ends here.',
  })
  const steps = ['bank-minus', ...(shunted ? ['shunt'] : []), 'bar-minus']
  steps.slice(1).forEach((to, i) => {
    build.run(`main-return-${i + 1}`, elementAt(steps, i), to, {
      role: 'main',
      usualM: usualM.main,
      ...(small ? {} : { returnOf: `main-feed-${i + 1}` }),
    })
  })
}

/** The shunt of an existing or new monitor, with its rating if known. */
function shuntOf(build: Builder, own: Pick<Post, 'nominalV' | 'opposite' | 'pole'>): void {
  const { use } = build.system.one
  const state = build.stateOf('use/monitor')
  const isRead = use.$entered('shuntA') !== null
  build.fitting('shunt', 'shunt', {
    ...own,
    state,
    ratedA: isRead || state === 'found' ? use.shuntA : null,
    isRatingOpen: !isRead && state === 'found',
    name: 'Shunt',
    reason: 'All current of the battery passes here: nothing but the battery is joined on its side.',
  })
}
