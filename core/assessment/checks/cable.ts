import { said } from '#core/units/format'
import { check, mid, number, word, type Subjects } from '#core/assessment/check'
import {
  carriesA,
  feedsFarEnd,
  flowsA,
  fuseFrom,
  fuseUpTo,
  sizeToCarry,
  wouldCarryA,
} from '#core/system/cables'
import { isStraight } from '#core/system/lanes'
import type { RemedyRef } from '#core/remedies/catalogue'
import type { System } from '#core/system/system'

const localCode = (): string[] => [
  'Sizes and fuses here are starting points: the local code and the makers’ sheets decide.',
]

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
  if (unit?.currentLimit !== 'adjustable') return []
  const value = Math.floor(mostA)
  return value >= 1 ? [{ id: 'charger.limit-current', on: unit.$path, value }] : []
}

export const ampacity = check({
  id: 'cable.ampacity',
  title: 'Current in the cable',
  about: 'cable',
  why: 'Lithium draws for an hour what lead drew for minutes: a cable that was warm is now hot, and its insulation burns.',
  judge(subject, system) {
    const { cable, name } = subject
    const { q } = system
    const flows = flowsA(cable, system)
    if (flows === null) return null
    const carries = carriesA(cable)
    const over = flows > carries
    return {
      verdict: over ? 'suits-once-changed' : 'suits',
      compared: [number('flows', flows, 'A'), number('cable carries', carries, 'A')],
      limit: cable.$origin('areaMm2'),
      formula: () => `${carriesWords(subject, system)}; ${q(flows, 'A')} flow for hours`,
      summary: () =>
        over
          ? `In ${mid(name)} ${q(flows, 'A')} flow for hours, and ${q(cable.areaMm2, 'mm²')} carry ${q(carries, 'A')} there.`
          : `${name} carries ${q(carries, 'A')} where it lies; ${q(flows, 'A')} flow in it.`,
      remedies: over ? [...thicker(subject, flows), ...lessCurrent(subject, carries)] : [],
      cautions: localCode,
    }
  },
})

function carriesWords({ cable }: Subjects['cable'], { q }: System): string {
  return said(
    `${q(cable.areaMm2, 'mm²')}, ${cable.insulationC} °C insulation`,
    cable.engineSpace === 'yes' ? ', in the engine space' : '',
    cable.bundled > 1 ? `, ${cable.bundled} in a bundle` : '',
    cable.material === 'aluminium' ? ', aluminium' : '',
    `: ${q(carriesA(cable), 'A')}`,
  )
}

/** The largest fuse at either end of a cable, A. */
const largestFuseA = ({ fuseA, farFuseKind, farFuseA }: Subjects['cable']['cable']): number =>
  Math.max(fuseA, farFuseKind === 'none' ? 0 : (farFuseA ?? 0))

export const fuse = check({
  id: 'cable.fuse',
  title: 'Fuse against cable',
  about: 'cable',
  why: 'A fuse protects the cable, not what hangs on it: one that is larger than the cable lets it glow in a short that never blows the fuse.',
  judge(subject, system) {
    const { cable, name } = subject
    const { q } = system
    const flows = flowsA(cable, system)
    if (flows === null) return null
    const carries = carriesA(cable)
    const largestA = largestFuseA(cable)
    const over = largestA > carries
    const small = !over && flows > cable.fuseA
    return {
      verdict: over || small ? 'suits-once-changed' : 'suits',
      compared: small
        ? [number('flows', flows, 'A'), number('fuse holds', cable.fuseA, 'A')]
        : [number('fuse', largestA, 'A'), number('cable carries', carries, 'A')],
      limit: cable.$origin(small ? 'fuseA' : 'areaMm2'),
      formula: () =>
        `${q(flows, 'A')} flow; fuse ${q(largestA, 'A')} ${over ? '>' : '≤'} ${carriesWords(subject, system)}`,
      summary: () =>
        over
          ? `The fuse of ${mid(name)} is ${q(largestA, 'A')} and the cable carries ${q(carries, 'A')}: in a short the cable burns before the fuse blows.`
          : small
            ? `In ${mid(name)} ${q(flows, 'A')} flow for hours through a fuse of ${q(cable.fuseA, 'A')}, which blows.`
            : `The fuse of ${q(largestA, 'A')} protects ${mid(name)}, which carries ${q(carries, 'A')}.`,
      remedies: over || small ? fitFuse(subject, flows) : [],
      cautions: () =>
        !over && !small && flows > 0.8 * cable.fuseA
          ? [
              'The fuse runs warm at more than four fifths of its rating: one size up, where the cable carries it.',
            ]
          : [],
    }
  },
})

/** The fuse that holds what flows and protects the cable; where there is none, a cable that the fuse protects. */
function fitFuse(subject: Subjects['cable'], flows: number): RemedyRef[] {
  const { cable } = subject
  const carries = carriesA(cable)
  const wished = fuseFrom(flows * 1.25)
  const value = wished !== null && wished <= carries ? wished : fuseUpTo(carries)
  if (value !== null && value >= flows) return [{ id: 'fuse.size', on: cable.$path, value }]
  return thicker(subject, wished ?? flows).map((ref) => ({
    ...ref,
    values: { fuseA: Math.min(wished ?? flows, fuseUpTo(wouldCarryA(cable, ref.value!)) ?? flows) },
  }))
}

export const bothEnds = check({
  id: 'cable.both-ends',
  title: 'Fuses at both ends',
  about: 'cable',
  why: 'A cable between two sources burns from either: a fuse at one end protects it from that side alone.',
  judge({ cable, name }, system) {
    const feeds = feedsFarEnd(cable, system)
    if (feeds === null) return null
    const fused = cable.farFuseKind !== 'none'
    return {
      verdict: fused ? 'suits' : 'suits-once-changed',
      compared: [word('at the far end', fused ? 'a fuse' : 'no fuse'), word('fed there by', feeds)],
      limit: cable.$origin('farFuseKind'),
      formula: () => `${feeds} can feed a fault from the far end; fuse there: ${fused ? 'yes' : 'none'}`,
      summary: () =>
        fused
          ? `${name} has a fuse at each end.`
          : `${name} has no fuse at its far end, where ${feeds} can feed a fault.`,
      remedies: fused ? [] : [{ id: 'fuse.far-end', on: cable.$path, value: cable.fuseA }],
    }
  },
})

export const plug = check({
  id: 'cable.plug',
  title: 'Plug in the cable',
  about: 'cable',
  why: 'A plug is the weakest part of its cable, and its contacts age: it melts at a current that cable and fuse bear.',
  judge({ cable, name }, system) {
    const { q } = system
    const flows = flowsA(cable, system)
    const { connectorA, connectorMostMm2 } = cable
    if (flows === null || connectorA === null) return null
    const fuseA = largestFuseA(cable)
    const tooThick = cable.areaMm2 > connectorMostMm2
    const over = flows > connectorA || fuseA > connectorA
    const needsA = Math.max(flows, fuseA)
    const smaller = fuseUpTo(connectorA)
    const refuse = flows <= connectorA && smaller !== null && smaller >= flows
    return {
      verdict: over || tooThick ? 'suits-once-changed' : 'suits',
      compared:
        tooThick && !over
          ? [number('cable', cable.areaMm2, 'mm²'), number('plug takes', connectorMostMm2, 'mm²')]
          : [
              number(flows > connectorA ? 'flows' : 'fuse', flows > connectorA ? flows : fuseA, 'A'),
              number('plug', connectorA, 'A'),
            ],
      limit: cable.$origin(tooThick && !over ? 'connectorMostMm2' : 'connectorA'),
      formula: () =>
        `${q(flows, 'A')} flow, fuse ${q(fuseA, 'A')}, plug ${q(connectorA, 'A')}; ${q(cable.areaMm2, 'mm²')} in contacts for ${q(connectorMostMm2, 'mm²')}`,
      summary: () =>
        flows > connectorA
          ? `Through the plug of ${mid(name)} ${q(flows, 'A')} flow, and it is made for ${q(connectorA, 'A')}.`
          : over
            ? `The fuse of ${mid(name)} is ${q(fuseA, 'A')} and its plug is made for ${q(connectorA, 'A')}: the plug melts first.`
            : tooThick
              ? `The plug of ${mid(name)} takes ${q(connectorMostMm2, 'mm²')}, and the cable is ${q(cable.areaMm2, 'mm²')}.`
              : `The plug of ${mid(name)} is made for ${q(connectorA, 'A')}; ${q(flows, 'A')} flow through it.`,
      remedies:
        over || tooThick
          ? [
              ...(over && !tooThick && refuse
                ? [{ id: 'fuse.size', on: cable.$path, value: smaller } as const]
                : []),
              {
                id: 'plug.larger',
                on: cable.$path,
                value: Math.ceil(needsA / 5) * 5,
                values: { connectorMostMm2: Math.max(cable.areaMm2, connectorMostMm2) },
              },
            ]
          : [],
    }
  },
})
