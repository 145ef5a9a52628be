import { fieldAt, knownAt, type FieldPath } from '#core/job/document'
import type { LineValue } from '#core/job/line'
import { usualHow, type How, type Known } from '#core/job/fields'

/**
 * Takes values into the job as someone enters them: with the chosen source, or the source that each had
 * unless that was assumed, else as such a value usually is. Null makes a value unknown.
 */
export function useEntering() {
  const bench = useJob()
  const view = useView()
  const who = useDeviceName()
  /** A value with how it is known. */
  function knownFor(path: FieldPath, value: unknown, how: How | null | undefined): Known<unknown> {
    const known = knownAt(bench.document!, path) as (Known<unknown> & Record<string, unknown>) | undefined
    if (value == null) return { ...known, value: null }
    const before = known?.how === 'assumed' ? undefined : known?.how
    const by = how ?? view.source ?? before ?? usualHow(fieldAt(path)!.field)
    // Properties of the value that this version does not know stay with it.
    const {
      value: _v,
      how: _h,
      when: _w,
      by: _b,
      from: _f,
      ...others
    } = known ?? ({} as Record<string, unknown>)
    const stamp = by === 'measured' ? { when: new Date().toISOString(), by: who.value } : {}
    return { ...others, value, how: by, ...stamp } as Known<unknown>
  }
  return {
    enter: (path: FieldPath, value: unknown, how?: How | null): void =>
      bench.setField(path, knownFor(path, value, how)),
    /** Assumed values hold, as they usually are known: one step of undo. */
    confirmAll: (values: readonly (readonly [path: FieldPath, value: unknown])[]): void =>
      bench.setFields(values.map(([path, value]) => [path, knownFor(path, value, undefined)])),
    /** Several values, which one undo takes back. */
    enterAll: (lines: readonly LineValue[]): void =>
      bench.setFields(lines.map(({ path, value, how }) => [path, knownFor(path, value, how)])),
  }
}
