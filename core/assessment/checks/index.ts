import { topicOf, type Check, type Subjects } from '#core/assessment/check'
import { checks as ahead } from './alternator/ahead'
import { checks as alternator } from './alternator/alternator'
import { checks as battery } from './battery/battery'
import { checks as batteryData } from './battery/battery-data'
import { checks as batteryUnlike } from './battery/battery-unlike'
import { checks as cable } from './conductor/cable'
import { checks as capacity } from './battery/capacity'
import { checks as charger } from './charger/charger'
import { checks as chargerCurrent } from './charger/charger-current'
import { checks as cold } from './cold/cold'
import { checks as current } from './battery/current'
import { checks as dcdc } from './link/dcdc'
import { checks as dcdcPlace } from './link/dcdc-place'
import { checks as fitting } from './battery/fitting'
import { checks as heat } from './alternator/heat'
import { checks as link } from './link/link'
import { checks as mixed } from './mixed/mixed'
import { checks as nominal } from './charger/nominal'
import { checks as range } from './charger/range'
import { checks as role } from './charger/role'
import { checks as sag } from './battery/sag'
import { checks as shortCircuit } from './battery/short-circuit'
import { checks as solar } from './solar/solar'
import { checks as start } from './link/start'
import { checks as total } from './charger/total'
import { checks as wiringFittings } from './wiring/fittings'
import { checks as wiringGrading } from './wiring/grading'
import { checks as wiringMains } from './wiring/mains'
import { checks as wiringRuns } from './wiring/runs'
import { checks as wiringSwitches } from './wiring/switches'
import { checks as wiringWhole } from './wiring/whole'

const topics = [
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

/** The ids of all checks: a check that is renamed no longer compiles where its old id is used. */
export type CheckId = (typeof topics)[number][number]['id']
/** A check of the catalogue. */
export type AnyCheck = Check<keyof Subjects, CheckId>

/** Every check, by topic in the order an installer would name them. */
export const allChecks: readonly AnyCheck[] = topics.flat()

const topicWords = new Map(allChecks.map((check) => [check.id, topicOf(check)]))

/** The subject of a check, inside a sentence; its id if this version does not know it. */
export const checkTopic = (id: string): string => topicWords.get(id as CheckId) ?? id
