import { topicOf, type Check, type Subjects } from '#core/assessment/check'
import * as ahead from './alternator/ahead'
import * as alternator from './alternator/alternator'
import * as battery from './battery/battery'
import * as batteryData from './battery/battery-data'
import * as batteryUnlike from './battery/battery-unlike'
import * as cable from './conductor/cable'
import * as capacity from './battery/capacity'
import * as charger from './charger/charger'
import * as chargerCurrent from './charger/charger-current'
import * as cold from './cold/cold'
import * as current from './battery/current'
import * as dcdc from './link/dcdc'
import * as dcdcPlace from './link/dcdc-place'
import * as fitting from './battery/fitting'
import * as heat from './alternator/heat'
import * as link from './link/link'
import * as mixed from './mixed/mixed'
import * as nominal from './charger/nominal'
import * as range from './charger/range'
import * as role from './charger/role'
import * as sag from './battery/sag'
import * as shortCircuit from './battery/short-circuit'
import * as solar from './solar/solar'
import * as start from './link/start'
import * as total from './charger/total'
import * as wiringFittings from './wiring/fittings'
import * as wiringGrading from './wiring/grading'
import * as wiringMains from './wiring/mains'
import * as wiringRuns from './wiring/runs'
import * as wiringSwitches from './wiring/switches'
import * as wiringWhole from './wiring/whole'

const topicFiles = [
  charger,
  chargerCurrent,
  range,
  nominal,
  role,
  link,
  dcdc,
  dcdcPlace,
  alternator,
  heat,
  ahead,
  solar,
  cold,
  mixed,
  start,
  total,
  current,
  sag,
  capacity,
  batteryData,
  battery,
  batteryUnlike,
  fitting,
  shortCircuit,
  cable,
  wiringRuns,
  wiringFittings,
  wiringGrading,
  wiringWhole,
  wiringSwitches,
  wiringMains,
] as const

type IdsIn<Topic> = Topic extends unknown
  ? {
      [Name in keyof Topic]: Topic[Name] extends { readonly isCheck: true; readonly id: infer Id }
        ? Id
        : never
    }[keyof Topic]
  : never
/** The ids of all checks: a check that is renamed no longer compiles where its old id is used. */
export type CheckId = IdsIn<(typeof topicFiles)[number]>
/** A check of the catalogue. */
export type AnyCheck = Check<keyof Subjects, CheckId>

const isCheck = (value: unknown): value is AnyCheck =>
  typeof value === 'object' && value !== null && 'isCheck' in value

/**
 * Every check, by topic in the order an installer would name them. Exporting a check from its topic file puts
 * it here.
 */
export const allChecks: readonly AnyCheck[] = topicFiles.flatMap((topic) =>
  Object.values(topic)
    .filter(isCheck)
    .sort((a, b) => a.order - b.order),
)

const topics = new Map(allChecks.map((check) => [check.id, topicOf(check)]))

/** What a check is about, inside a sentence; its id for one that this version does not know. */
export const checkTopic = (id: string): string => topics.get(id as CheckId) ?? id
