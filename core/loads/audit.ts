import type { View } from '#core/system/scene'
import { factsOf, usualSystem, type ShopSettings, type System } from '#core/system/system'
import { dailyUse, dcAtOnceA, highestDischargeA, loadA, surgeA, usableAh } from '#core/system/energy'
import type { FieldPath, JobDocument, PartPath } from '#core/job/document'

export const dayParts = {
  night: 'Night, 0 to 6',
  morning: 'Morning, 6 to 12',
  afternoon: 'Afternoon, 12 to 18',
  evening: 'Evening, 18 to 24',
} as const
type DayPart = keyof typeof dayParts

/** Daily charge of one load. */
interface LoadShare {
  readonly path: PartPath
  /** Current at the battery while it runs, A. */
  readonly amps: number
  readonly ahADay: number
  readonly essential: boolean
  /** Unknowns with typical values. */
  readonly open: readonly FieldPath[]
}

interface Audit {
  readonly loads: readonly LoadShare[]
  /** Inverters switched on with nothing to do, Ah a day. */
  readonly idleAh: number
  readonly listedAh: number
  readonly essentialAh: number
  readonly byPart: Readonly<Record<DayPart, number>>
  /**
   * Daily charge for the checks, Ah: as measured, or from the list; null while there is neither.
   */
  readonly dailyAh: number | null
  readonly dailyFrom: 'counted' | 'loads'
  /** DC loads on at once, and with the inverters at full power, A. */
  readonly atOnceA: number
  readonly highestA: number
  readonly surgeA: number
  readonly surgeS: number
  /** Usable capacity of the battery in question, Ah; null while its size is unknown. */
  readonly usableAh: number | null
}

function shareOf(load: View<'loads'>, system: System): LoadShare {
  const amps = loadA(load, system)
  return {
    path: load.$path,
    amps,
    ahADay: amps * load.hours * (load.duty / 100),
    essential: load.essential === 'yes',
    open: [load.supply === 'dc' ? 'amps' : 'watts', 'hours']
      .filter((name) => !load.$settled(name))
      .map((name) => `${load.$path}/${name}`),
  }
}

/**
 * Adds up the loads of a job by part of the day. Same functions as the checks use. A value that is unknown
 * is taken in the middle of its plausible range, and said to be open.
 */
export function auditLoads(job: JobDocument, shop: ShopSettings = {}): Audit {
  const system = usualSystem(factsOf(job, shop))
  const byPart: Record<DayPart, number> = { night: 0, morning: 0, afternoon: 0, evening: 0 }
  const spread = (ah: number, period: string): void => {
    for (const part of Object.keys(byPart) as DayPart[])
      byPart[part] += period === 'even' ? ah / 4 : period === part ? ah : 0
  }
  const loads = system.many.loads.map((load): LoadShare => {
    const own = shareOf(load, system)
    spread(own.ahADay, load.period)
    return own
  })
  const listed = loads.reduce((sum, load) => sum + load.ahADay, 0)
  const idleAh = system.many.inverters.reduce(
    (sum, inverter) => sum + (inverter.idleW / system.bank.ocv(0.5)) * inverter.hoursOn,
    0,
  )
  if (loads.length > 0) spread(idleAh, 'even')
  const counts = loads.length > 0 || system.one.use.$settled('dailyAh')
  const use = dailyUse(system)
  const surge = surgeA(system)
  return {
    loads,
    idleAh,
    byPart,
    listedAh: listed + (loads.length > 0 ? idleAh : 0),
    essentialAh: loads.filter((load) => load.essential).reduce((sum, load) => sum + load.ahADay, 0),
    dailyAh: counts ? use.ah : null,
    dailyFrom: use.from,
    atOnceA: dcAtOnceA(system),
    highestA: highestDischargeA(system).amps,
    surgeA: surge.amps,
    surgeS: surge.seconds,
    usableAh: system.one.candidate.$settled('ahEach') ? usableAh(system) : null,
  }
}
