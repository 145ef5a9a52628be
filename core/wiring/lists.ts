import { present } from '#core/collections/held'
import { familyWords } from '#core/job/parts/wiring'
import type { ShopRules } from '#core/rules/rules'
import type { Network, Post, Run, Stud } from './network'

/** A thing to buy for the wiring. */
export interface WiringPart {
  readonly what: string
  readonly quantity: number
  readonly unit: '' | 'm'
  /** The search of the shelf; null if the shelf has no kind for it. */
  readonly wanted: Wanted | null
  /** Approximate weight of cable, kg; null for small parts. */
  readonly kg: number | null
}

/** A part of the shelf that does: of a kind, with some values as they are and others no less. */
export interface Wanted {
  readonly kind: 'conductors' | 'fuses' | 'switches' | 'connectors' | 'lugs' | 'sleeves' | 'bars'
  readonly exactly: Readonly<Record<string, string | number>>
  readonly least: Readonly<Record<string, number>>
}

/** Extra cable for bends and offcuts, as a share and at least this much a run. */
const allowance = 0.1
const leastAllowanceM = 0.3

/** Weight of a conductor, kg per mm² and m; and the additional share of its sheath (engineering default). */
const kgPerMm2M = { copper: 0.00896, aluminium: 0.0027 } as const
const sheathShare = 0.25

/** Stud of a lug by the size of its conductor, unless a maker says otherwise (engineering default). */
const usualStud = (areaMm2: number): Stud =>
  areaMm2 >= 50 ? 'M10' : areaMm2 >= 16 ? 'M8' : areaMm2 >= 4 ? 'M6' : 'M5'
/** Typical torque of a stud, Nm, if no maker gives a figure (engineering default). */
export const torqueNm: Readonly<Record<Stud, number>> = { M5: 3, M6: 5, M8: 9, M10: 18, M12: 30 }

/** The stud on which the lug of a conductor lands. */
const studAt = (post: string, areaMm2: number, { posts }: Network): Stud =>
  posts.find(({ id }) => id === post)?.stud ?? usualStud(areaMm2)

/** Studs and torques of both ends of a run, in words: the maker’s figure decides. */
export function torqueWords(run: Run, network: Network): string {
  if (run.areaMm2 === null) return ''
  const area = run.areaMm2
  const ends = [run.from, run.to].map((end) => studAt(end, area, network))
  return [...new Set(ends)].map((stud) => `${stud} ${torqueNm[stud]} Nm`).join(', ')
}

/** Size and usual length of a thin line, mm² and m (engineering default). */
const lineMm2 = 1
const lineM = 4

const colourOf = (run: Run, network: Network): string =>
  network.posts.find(({ id }) => id === run.from)?.pole === 'negative' ? 'black' : 'red'

type BoughtRun = Run & { readonly areaMm2: number }
const isBought = (run: Run): run is BoughtRun => run.state === 'new' && run.areaMm2 !== null

/** Parts by name, with their totals. */
class Purchase {
  private readonly sums = new Map<string, Omit<WiringPart, 'what'>>()

  add(
    what: string,
    quantity: number,
    wanted: Wanted | null,
    { unit = '', kg = null }: { readonly unit?: '' | 'm'; readonly kg?: number | null } = {},
  ): void {
    const sum = this.sums.get(what) ?? { quantity: 0, unit, wanted, kg: null }
    this.sums.set(what, {
      ...sum,
      quantity: sum.quantity + quantity,
      kg: kg === null ? sum.kg : (sum.kg ?? 0) + kg,
    })
  }

  get parts(): WiringPart[] {
    return [...this.sums].map(([what, sum]) => ({
      what,
      ...sum,
      quantity: sum.unit === 'm' ? Math.ceil(sum.quantity * 10) / 10 : sum.quantity,
    }))
  }
}

/**
 * Parts to buy for the wiring: cable by size and colour with its allowance, lugs, heat-shrink, fuses, switches,
 * bars.
 */
export function partsOfWiring(network: Network): WiringPart[] {
  const purchase = new Purchase()
  for (const run of network.runs) if (isBought(run)) addRun(purchase, run, network)
  for (const post of network.posts) {
    const name = post.state === 'new' ? boughtAs(post) : null
    if (name) purchase.add(name, 1, wantedFor(post))
  }
  for (const line of network.lines) if (line.state === 'new') addLine(purchase, line)
  return purchase.parts
}

/** A run with the parts at its ends. */
function addRun(purchase: Purchase, run: BoughtRun, network: Network): void {
  const { areaMm2, count, material, insulationC } = run
  const metres = (run.lengthM + Math.max(leastAllowanceM, allowance * run.lengthM)) * count
  purchase.add(
    `Cable ${areaMm2} mm², ${colourOf(run, network)}, ${insulationC} °C`,
    metres,
    { kind: 'conductors', exactly: { areaMm2, material }, least: { insulationC } },
    { unit: 'm', kg: metres * areaMm2 * kgPerMm2M[material] * (1 + sheathShare) },
  )
  for (const end of [run.from, run.to]) {
    const stud = studAt(end, areaMm2, network)
    purchase.add(`Lug ${areaMm2} mm², ${stud}`, count, {
      kind: 'lugs',
      exactly: { areaMm2, stud },
      least: {},
    })
  }
  purchase.add(`Heat-shrink for ${areaMm2} mm²`, 2 * count, {
    kind: 'sleeves',
    exactly: { areaMm2 },
    least: {},
  })
}

/** A thin line, with the fuse in it. */
function addLine(purchase: Purchase, { fuseA }: Network['lines'][number]): void {
  purchase.add(
    `Thin line, ${lineMm2} mm²`,
    lineM,
    { kind: 'conductors', exactly: { areaMm2: lineMm2, material: 'copper' }, least: {} },
    { unit: 'm' },
  )
  if (fuseA === null) return
  purchase.add(`Blade fuse ${fuseA} A with a holder in the line`, 1, {
    kind: 'fuses',
    exactly: { fuseKind: 'blade', fuseA },
    least: {},
  })
}

/** Hours it takes to lay the new runs and mount the new devices, by the shop's minutes for each. */
export function hoursOfWiring(
  { runs, posts }: Network,
  { runMinutes, deviceMinutes }: Pick<ShopRules, 'runMinutes' | 'deviceMinutes'>,
): number {
  const laid = runs.filter(isBought).reduce((sum, { count }) => sum + count, 0)
  const mounted = posts.filter((post) => post.state === 'new' && boughtAs(post) !== null).length
  return (laid * runMinutes + mounted * deviceMinutes) / 60
}

function wantedFor({ kind, fitting }: Post): Wanted | null {
  const ratedA = fitting?.ratedA
  if (!fitting || ratedA == null) return null
  switch (kind) {
    case 'fuse':
      return { kind: 'fuses', exactly: { fuseKind: present(fitting.family), fuseA: ratedA }, least: {} }
    case 'switch':
      return { kind: 'switches', exactly: { remote: 'no' }, least: { continuousA: ratedA } }
    case 'relay':
    case 'stop':
      return { kind: 'switches', exactly: { remote: 'yes' }, least: { continuousA: ratedA } }
    case 'bar':
      return { kind: 'bars', exactly: {}, least: { barA: ratedA } }
    case 'plug':
      return { kind: 'connectors', exactly: {}, least: { connectorA: ratedA } }
    default:
      return null
  }
}

function boughtAs({ kind, fitting }: Post): string | null {
  if (!fitting || fitting.ratedA === null) return null
  if (kind === 'fuse')
    return `Fuse ${fitting.ratedA} A, ${familyWords(present(fitting.family))}, with its holder`
  // A shunt comes with its monitor.
  if (kind === 'shunt') return null
  const names = {
    switch: 'Battery switch',
    relay: 'Relay',
    stop: 'Contactor that the battery’s signal opens',
    plug: 'Plug and socket',
    bar: 'Bus bar',
  }
  return `${names[kind as keyof typeof names]}, ${fitting.ratedA} A`
}

/** A terminal of a replaced unit, with its cables before and after. */
export interface SwapStep {
  readonly unit: string
  readonly terminal: string
  readonly runs: readonly string[]
  readonly carriedOver: readonly string[]
}

/**
 * The terminals moved from an old unit to its replacement: the runs that stay, and the fuses and
 * plugs on them that must be carried over.
 */
export function swapsOf({ units, posts, runs, gone }: Network): SwapStep[] {
  return gone.flatMap(({ instead }) => {
    const unit = units.find(({ id }) => id === instead)
    if (!unit || unit.kind === 'battery') return []
    const terminals = posts.filter(({ of, kind }) => of === unit.of && kind === 'terminal')
    return terminals.map(({ id, name }): SwapStep => {
      const landing = runs.filter(({ from, to, state }) => state === 'found' && (from === id || to === id))
      const over = posts.filter(({ state, fitting, of }) => state === 'found' && fitting && of === unit.of)
      return {
        unit: unit.name,
        terminal: name,
        runs: landing.map(({ number }) => number),
        carriedOver: over.map(({ fitting }) => present(fitting).number),
      }
    })
  })
}
