import type { Unit } from '#core/units/units'

/** A number the shop sets: a threshold, with the reason for its default. */
interface NumberRule {
  readonly kind: 'number'
  readonly label: string
  readonly unit: Unit
  readonly default: number
  readonly limits: readonly [least: number, most: number]
  readonly reason: string
}

/**
 * A question on which workshops differ: the schools, the argument for each, and the reason for the default.
 */
export interface SchoolRule<O extends string = string> {
  readonly kind: 'school'
  readonly label: string
  readonly options: Readonly<Record<O, string>>
  readonly says: Readonly<Record<O, string>>
  readonly default: NoInfer<O>
  readonly reason: string
}

/** A threshold. @param limits range for a shop @param reason for its default */
export const number = (
  label: string,
  unit: Unit,
  value: number,
  limits: readonly [number, number],
  reason: string,
): NumberRule => ({ kind: 'number', label, unit, default: value, limits, reason })

/** A question with its schools. @param reason for its default */
export const school = <const O extends string>(
  label: string,
  schools: Readonly<Record<O, readonly [option: string, says: string]>>,
  value: NoInfer<O>,
  reason: string,
): SchoolRule<O> => {
  const part = (index: 0 | 1) =>
    Object.fromEntries(
      Object.entries<readonly [string, string]>(schools).map(([id, words]) => [id, words[index]]),
    ) as Record<O, string>
  return { kind: 'school', label, options: part(0), says: part(1), default: value, reason }
}
