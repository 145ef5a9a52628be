import { batteryTests } from './batteries'
import { chargerTests } from './chargers'
import { engineTests } from './engine'
import { loadTests } from './loads'
import { sideTests } from './sides'
import type { Bench } from './make'
import { monitorTests } from './monitor'
import { protectionTests } from './protections'
import { quietTests } from './quiet'
import { walkTests } from './walk-round'
import { testGroups, type ProofTest } from './test'

/** Every test of a job, in the order in which they are done where nothing asks for another. */
export function testsOf(bench: Bench): ProofTest[] {
  const all = [
    ...batteryTests(bench),
    ...quietTests(bench),
    ...walkTests(bench),
    ...loadTests(bench),
    ...sideTests(bench),
    ...chargerTests(bench),
    ...engineTests(bench),
    ...protectionTests(bench),
    ...monitorTests(bench),
  ]
  return testGroups.flatMap((group) => all.filter((test) => test.group === group))
}
