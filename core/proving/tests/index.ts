import { batteryTests } from './batteries'
import { chargerTests } from './chargers'
import { engineTests } from './engine'
import { loadTests, sideTests } from './loads'
import { lookTests } from './looks'
import type { Bench } from './make'
import { monitorTests } from './monitor'
import { protectionTests } from './protections'
import { quietTests } from './quiet'
import { testGroups, type ProofTest } from './test'

/** Those that are made whatever is read: the others are asked for where something looks wrong. */
export const routineOf = (tests: readonly ProofTest[]): readonly ProofTest[] =>
  tests.filter(({ onlyAsked }) => !onlyAsked)

/** Every test of a job, in the order in which they are done where nothing asks for another. */
export function testsOf(bench: Bench): ProofTest[] {
  const all = [
    ...batteryTests(bench),
    ...quietTests(bench),
    ...lookTests(bench),
    ...loadTests(bench),
    ...sideTests(bench),
    ...chargerTests(bench),
    ...engineTests(bench),
    ...protectionTests(bench),
    ...monitorTests(bench),
  ]
  return testGroups.flatMap((group) => all.filter((test) => test.group === group))
}
