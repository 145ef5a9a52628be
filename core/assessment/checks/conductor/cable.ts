import { present } from '#core/collections/held'
import { nameInSentence, joinText } from '#core/units/format'
import { check, type Subjects } from '#core/assessment/check'
import {
  cableAmpacityA,
  feedsFarEnd,
  flowsA,
  fuseFrom,
  fuseUpTo,
  nearFuseA,
  nearFuseFamily,
  sizeToCarry,
  surroundingsOf,
  wouldCarryA,
} from '#core/system/cables'
import { highestChargeV } from '#core/wiring/charge-voltage'
import { cheapestFamily, fuseInterruptA } from '#core/physics/fuses'
import { isStraight } from '#core/system/lanes'
import { heldToCurrent } from '#core/remedies/arrangements'
import type { RemedyRef } from '#core/remedies/catalogue'
import type { System } from '#core/system/system'
import {
  aroundWords,
  currentIn,
  fuseAgainst,
  fusedTowards,
  plugAgainst,
  unfused,
  type Conductor,
} from './conductor'

/** A cable of the smallest usual size that carries a current there; none where no usual size does. */
function thicker({ cable }: Subjects['cable'], amps: number): RemedyRef[] {
  const value = sizeToCarry(cable, amps)
  return value === null ? [] : [{ id: 'cable.thicker', on: cable.$path, value }]
}

/** Less current from the unit that feeds a cable, where that can be set. */
function lessCurrent({ lane }: Subjects['cable'], mostA: number): RemedyRef[] {
  const unit =
    lane?.kind === 'charger'
      ? lane.charger
      : lane?.kind === 'alternator' && !isStraight(lane)
        ? lane.link
        : null
  return unit ? heldToCurrent(unit, mostA) : []
}

const ampacity = check({
  id: 'cable.ampacity',
  title: 'Current in the cable',
  about: 'cable',
  why: joinText(
    'Lithium draws for an hour what lead-acid drew for minutes. ',
    'A warm cable becomes hot, and its insulation burns.',
  ),
  judge(subject, system) {
    const conductor = conductorOf(subject, system)
    return (
      conductor &&
      currentIn(conductor, {
        most: '',
        remedies: () => [...thicker(subject, conductor.flowsA), ...lessCurrent(subject, conductor.carriesA)],
        q: system.q,
      })
    )
  },
})

/** A cable with its current; null if it serves no part with a known current. */
function conductorOf({ cable, name }: Subjects['cable'], system: System): Conductor | null {
  const flows = flowsA(cable, system)
  if (flows === null) return null
  const { q } = system
  return {
    name,
    flowsA: flows,
    carriesA: cableAmpacityA(cable),
    areaMm2: cable.areaMm2,
    words: `${q(cable.areaMm2, 'mm²')}${aroundWords(surroundingsOf(cable), q)}`,
    limit: cable.$origin('areaMm2'),
  }
}

/** The largest fuse at either end of a cable, A. */
const largestFuseA = (cable: Subjects['cable']['cable']): number =>
  Math.max(nearFuseA(cable), cable.farFuseKind === 'none' ? 0 : (cable.farFuseA ?? 0))

const fuse = check({
  id: 'cable.fuse',
  title: 'Fuse against cable',
  about: 'cable',
  why: joinText(
    'A fuse protects the cable, not the load. ',
    'With a fuse larger than the cable, a short makes the cable glow.',
  ),
  judge(subject, system) {
    const conductor = conductorOf(subject, system)
    if (!conductor) return null
    const { cable, name } = subject
    const remedies = (): RemedyRef[] => fitFuse(subject, conductor.flowsA, system)
    if (nearFuseFamily(cable) === null)
      return unfused(conductor, cable.$origin('fuseKind'), remedies, system.q)
    // The larger of its two fuses protects it least. The current passes the fuse nearest the battery.
    const largestA = largestFuseA(cable)
    const ratedA = largestA > conductor.carriesA ? largestA : cable.fuseA
    return fuseAgainst(
      conductor,
      { name: `fuse of ${nameInSentence(name)}`, ratedA, holdsA: cable.fuseA },
      { rule: '', remedies, q: system.q },
    )
  },
})

/** Typical short-circuit current of a lithium bank, A (engineering default). A new fuse interrupts as much. */
const commonShortA = 10_000

/** The family of a new fuse. An existing fuse keeps its own. */
function newFamily(
  cable: Subjects['cable']['cable'],
  ratedA: number,
  { bank }: System,
): Pick<RemedyRef, 'values'> {
  if (nearFuseFamily(cable) !== null) return {}
  const volts = highestChargeV({ nominalV: bank.nominalV })
  const family = cheapestFamily(ratedA, (one) => fuseInterruptA(one, volts) >= commonShortA)
  return { values: { fuseKind: family ?? 'class-t' } }
}

/** The fuse that carries the current and protects the cable; if there is none, a cable that the fuse protects. */
function fitFuse(subject: Subjects['cable'], flows: number, system: System): RemedyRef[] {
  const { cable } = subject
  const carries = cableAmpacityA(cable)
  const suitable = fuseFrom(flows * 1.25)
  const value = suitable !== null && suitable <= carries ? suitable : fuseUpTo(carries)
  if (value !== null && value >= flows)
    return [{ id: 'fuse.size', on: cable.$path, value, ...newFamily(cable, value, system) }]
  return thicker(subject, suitable ?? flows).map((ref) => ({
    ...ref,
    values: { fuseA: Math.min(suitable ?? flows, fuseUpTo(wouldCarryA(cable, present(ref.value))) ?? flows) },
  }))
}

const bothEnds = check({
  id: 'cable.both-ends',
  title: 'Fuses at both ends',
  about: 'cable',
  why: 'A cable between two sources can burn from either end. One fuse protects it from one end only.',
  judge({ cable, name }, system) {
    const feeds = feedsFarEnd(cable, system)
    if (feeds === null) return null
    const fused = cable.farFuseKind !== 'none'
    return fusedTowards(
      { name, fedBy: [feeds], unfused: fused ? [] : [feeds], limit: cable.$origin('farFuseKind') },
      {
        remedies: () => [
          {
            id: 'fuse.far-end',
            on: cable.$path,
            value: nearFuseA(cable) || (fuseUpTo(cableAmpacityA(cable)) ?? 0),
          },
        ],
      },
    )
  },
})

const plug = check({
  id: 'cable.plug',
  title: 'Plug in the cable',
  about: 'cable',
  why: joinText(
    'A plug is the weakest part of its cable, and its contacts age. ',
    'It melts at a current that cable and fuse carry.',
  ),
  judge({ cable, name }, system) {
    const flows = flowsA(cable, system)
    const { connectorA, connectorMostMm2 } = cable
    if (flows === null || connectorA === null) return null
    const fuseA = largestFuseA(cable)
    const tooThick = cable.areaMm2 > connectorMostMm2
    const smaller = fuseUpTo(connectorA)
    const refuse = !tooThick && flows <= connectorA && smaller !== null && smaller >= flows
    return plugAgainst(
      {
        name: `The plug of ${nameInSentence(name)}`,
        ratedA: connectorA,
        mostMm2: connectorMostMm2,
        limit: cable.$origin(
          tooThick && Math.max(flows, fuseA) <= connectorA ? 'connectorMostMm2' : 'connectorA',
        ),
      },
      { flowsA: flows, fuseA, areaMm2: cable.areaMm2 },
      {
        remedies: () => [
          ...(refuse ? [{ id: 'fuse.size', on: cable.$path, value: smaller } as const] : []),
          {
            id: 'plug.larger',
            on: cable.$path,
            value: Math.ceil(Math.max(flows, fuseA) / 5) * 5,
            values: { connectorMostMm2: Math.max(cable.areaMm2, connectorMostMm2) },
          },
        ],
        q: system.q,
      },
    )
  },
})

export const checks = [ampacity, fuse, bothEnds, plug] as const
