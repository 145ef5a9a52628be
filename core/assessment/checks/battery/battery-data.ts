import { lastOf } from '#core/collections/held'
import { check, number } from '#core/assessment/check'
import type { FieldPath } from '#core/job/document'
import type { System } from '#core/system/system'
import type { Unit } from '#core/units/units'
import { inSentence, joinText } from '#core/units/format'
import { partKinds } from '#core/job/fields'

type Sheet = typeof partKinds.candidate.fields

/** Two figures of a data sheet of which the first is never above the second, with their unit. */
const ordered = [
  ['chargeLowV', 'chargeHighV', 'V'],
  ['chargeHighV', 'absoluteHighV', 'V'],
  ['maxFloatV', 'absoluteHighV', 'V'],
  ['bmsUnderV', 'chargeLowV', 'V'],
  ['recommendedChargeA', 'largestChargeA', 'A'],
  ['continuousA', 'peakA', 'A'],
  ['continuousA', 'overCurrentA', 'A'],
  ['coldLimitC', 'chargeHotC', '°C'],
  ['dischargeColdC', 'dischargeHotC', '°C'],
] as const satisfies readonly (readonly [keyof Sheet, keyof Sheet, Unit])[]

/** Two figures that contradict each other. */
interface Contradiction {
  readonly low: { readonly path: FieldPath; readonly label: string; readonly value: number }
  readonly high: { readonly path: FieldPath; readonly label: string; readonly value: number }
  readonly unit: Unit
}

/** The first pair of entered figures that contradict each other; null if none do. */
function contradictionIn({ bank: { each } }: System): Contradiction | null {
  const at = (field: keyof Sheet, value: number) => ({
    path: `${each.$path}/${field}`,
    label: partKinds.candidate.fields[field].label,
    value,
  })
  for (const [low, high, unit] of ordered) {
    const [least, most] = [each.$entered(low), each.$entered(high)]
    if (typeof least === 'number' && typeof most === 'number' && least > most)
      return { low: at(low, least), high: at(high, most), unit }
  }
  return null
}

const sheetFigures = check({
  id: 'battery.data',
  title: 'Figures of the data sheet',
  about: 'battery',
  why: joinText(
    'Two figures that contradict each other cannot both be true. ',
    'Every verdict based on them would be a guess.',
  ),
  judge(_subject, system) {
    const { q } = system
    const wrong = contradictionIn(system)
    if (!wrong)
      return {
        verdict: 'suits',
        compared: [number('contradictions', 0, ''), number('at most', 0, '')],
        limit: { kind: 'physics', text: 'figures of one battery must be consistent' },
        formula: () => 'no two figures contradict each other',
        summary: () => 'The figures of the data sheet agree.',
      }
    const { low, high, unit } = wrong
    const span = Math.abs(low.value - high.value) + 1
    return {
      verdict: 'measure-first',
      compared: [
        number(inSentence(low.label), low.value, unit),
        number(inSentence(high.label), high.value, unit),
      ],
      limit: system.bank.each.$origin(lastOf(high.path.split('/'))),
      formula: () => `${q(low.value, unit)} > ${q(high.value, unit)}`,
      summary: () =>
        joinText(
          `${low.label} ${q(low.value, unit)} is above ${inSentence(high.label)} ${q(high.value, unit)}. `,
          'Ask the maker which is right.',
        ),
      asks: [
        { path: low.path, from: high.value - span, to: high.value },
        { path: high.path, from: low.value, to: low.value + span },
      ],
    }
  },
})

export const checks = [sheetFigures] as const
