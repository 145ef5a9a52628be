import { nameInSentence, joinText } from '#core/units/format'
import { loadStop } from './bars'
import type { Builder } from './builder'

/** Fuse of a signal line from a battery, A: it protects 1 mm² and carries the current of a relay coil. */
const signalFuseA = 3
/** Fuse of a line that only measures, A. */
const senseFuseA = 1

/** The thin lines: charge stops of the battery, running signals of units, and sense leads. */
export function linesOf(build: Builder): void {
  const { one } = build.system
  if (one.candidate.warning === 'stop') chargeStopsOf(build)
  stopOfBankOf(build)
  runningSignalsOf(build)
  senseLeadsOf(build)
}

/**
 * Lines by which a battery with protection outside the pack stops its sources: one to each source that can push it
 * too high, the alternator’s regulator included.
 */
function chargeStopsOf(build: Builder): void {
  const { many, lanes } = build.system
  for (const lane of lanes) {
    const path = lane.kind === 'alternator' && lane.link.kind !== 'dcdc' ? lane.alternator.$path : lane.id
    const wired = many.alternators.find(({ $path }) => $path === path)?.chargeStopWire === 'yes'
    build.line('stop', {
      of: path,
      name: `Charge stop to ${nameInSentence(lane.name)}`,
      state: wired ? build.stateOf(`${path}/chargeStopWire`) : 'new',
    })
  }
}

/** The line that opens the contactor of the loads, or between lithium and lead, if there is one. */
function stopOfBankOf(build: Builder): void {
  const name = build.has('main-stop')
    ? 'Charge and discharge stop to the contactor of the bank, with its reset'
    : 'Discharge stop to the contactor of the loads, with its reset'
  if (build.has('main-stop') || build.has(loadStop))
    build.line('stop', { of: 'candidate', name, fuseA: signalFuseA })
}

/** The run signal of a DC-DC or a solenoid: from a wire that is live only while the engine runs. */
function runningSignalsOf(build: Builder): void {
  for (const link of build.system.many.links) {
    const isToldByWire = link.kind === 'solenoid' || (link.kind === 'dcdc' && link.signal === 'wire')
    if (!isToldByWire) continue
    const isNew = [link.$path, `${link.$path}/signal`].some((path) => build.isNew(path))
    build.line('run', {
      of: link.$path,
      name: `Running signal to ${nameInSentence(link.$name)}, live only while the engine runs`,
      fuseA: signalFuseA,
      state: isNew ? 'new' : 'found',
    })
  }
}

/** Sense lines: of an external regulator at the battery it charges, of a monitor at the bank. */
function senseLeadsOf(build: Builder): void {
  const { many } = build.system
  for (const { $path, $name, regulator } of many.alternators) {
    if (regulator !== 'external') continue
    build.line('sense', {
      of: $path,
      name: joinText(
        `Sense lead of the regulator of ${nameInSentence($name)}, `,
        `from the positive post of ${sensedBy($path, build)}`,
      ),
      fuseA: senseFuseA,
      state: build.stateOf(`${$path}/regulator`),
    })
  }
  if (build.has('shunt'))
    build.line('sense', {
      of: 'use',
      name: 'Leads of the battery monitor to the shunt, and its supply from the positive post of the bank',
      fuseA: senseFuseA,
    })
}

/** The battery that an alternator charges itself: the bank, where nothing but a cable or a relay joins them. */
function sensedBy(alternator: string, build: Builder): string {
  const { links, startingBatteries } = build.system.many
  const link = links.find(({ $of }) => $of === alternator)
  const starting = startingBatteries.find(({ $of }) => $of === alternator)
  const isStraight = link !== undefined && link.kind !== 'dcdc' && link.kind !== 'none'
  return isStraight || starting?.present !== 'yes' ? 'the bank' : nameInSentence(starting.$name)
}
