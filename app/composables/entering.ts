import { fieldAt, knownAt, type FieldPath } from '#core/job/document'
import { usualHow, type How, type Known } from '#core/job/fields'

/**
 * Takes values into the job as someone enters them: known from where it is said to be copied, else as before
 * unless that was assumed, else as such a value usually is. Null makes a value unknown.
 */
export function useEntering() {
  const bench = useJob()
  const view = useView()
  const who = useDeviceName()
  return (path: FieldPath, value: unknown, how?: How | null): void => {
    const known = knownAt(bench.document!, path) as (Known<unknown> & Record<string, unknown>) | undefined
    if (value == null) return bench.setField(path, { ...known, value: null })
    const before = known?.how === 'assumed' ? undefined : known?.how
    const by = how ?? view.source ?? before ?? usualHow(fieldAt(path)!.field)
    // Properties of the value that this version does not know stay with it.
    const { value: _v, how: _h, when: _w, by: _b, ...others } = known ?? ({} as Record<string, unknown>)
    const stamp = by === 'measured' ? { when: new Date().toISOString(), by: who.value } : {}
    bench.setField(path, { ...others, value, how: by, ...stamp } as Known<unknown>)
  }
}
