import { describe, expect, it } from 'vitest'
import { checkJob } from '#core/formats/job-file'
import { factsOf, judge, usualSystem } from '#core/system/system'
import { nothingAssumed } from '#core/system/scene'
import { goodJob, withMeasured, withValues } from '#core/testing'
import { knownOf, partAt, partsOf, valueOf } from './document'
import { partKinds, type Field, type PartKind, type PartKindId } from './fields'

/** Every field of the survey that is absent if nothing is entered. */
const optional = (Object.entries(partKinds) as [PartKindId, PartKind][]).flatMap(([kind, { fields }]) =>
  Object.entries(fields).flatMap(([name, field]: [string, Field]) =>
    field.type === 'quantity' && field.otherwise === null ? [{ kind, name, field }] : [],
  ),
)

describe('a field that may be absent', () => {
  const job = withMeasured(
    withMeasured(goodJob(), 'inverters', { continuousW: 800 }),
    'conductors',
    { areaMm2: 25, lengthM: 2 },
    { of: 'chargers/charger-1' },
  )

  it('is a limit, a test, a price, or a calculated value: none uses a number for absence', () => {
    expect([...new Set(optional.map(({ name }) => name))].sort()).toEqual([
      'aicA',
      'airC',
      'areaMm2',
      'connectorA',
      'count',
      'distanceMm',
      'equaliseLeastV',
      'farFuseA',
      'farFuseAicA',
      'fuseAicA',
      'limitA',
      'loadLimitKg',
      'milliohm',
      'mostInverterW',
      'price',
      'ratedA',
      'relayA',
      'shortestM',
      'supplyLimitA',
      'testedAh',
      'warrantyYears',
    ])
    for (const { name, field } of optional.filter(({ name: id }) => id !== 'price' && id !== 'warrantyYears'))
      expect({ name, least: field.type === 'quantity' && field.limits[0] > 0 }).toEqual({ name, least: true })
  })
  it.each(optional.map(({ kind, name }) => [`${kind}/${name}`, kind, name] as const))(
    '%s reads as null where nothing is entered, is never asked for, and says so as evidence',
    (_, kind, name) => {
      const [ref] = partsOf(job, kind)
      if (!ref) return
      expect(valueOf(ref.part, name)).toBeNull()
      const facts = factsOf(job)
      const { value, scene } = judge(
        facts,
        nothingAssumed,
        (system) => {
          const parts = (partKinds[kind] as PartKind).many
            ? (system.many as never as Record<string, readonly Record<string, unknown>[]>)[kind]!
            : [(system.one as never as Record<string, Record<string, unknown>>)[kind]!]
          return parts[0]![name]
        },
        { evidence: true },
      )
      expect({ value, missing: scene.missing }).toEqual({ value: null, missing: [] })
      expect([...scene.inputs!].map(({ origin }) => origin.text)).toContain('none entered')
    },
  )
  it('reads as entered', () => {
    const limited = withValues(job, { 'place/loadLimitKg': 80, 'houseBank/testedAh': 55 })
    const { one } = usualSystem(factsOf(limited))
    expect([one.place.loadLimitKg, one.houseBank.testedAh]).toEqual([80, 55])
    expect(knownOf(partAt(limited, 'place')!.part, 'loadLimitKg')).toMatchObject({
      value: 80,
      how: 'measured',
    })
  })
  it('does not take zero for a test that nobody made', () => {
    const spoilt = checkJob(JSON.parse(JSON.stringify(withValues(job, { 'houseBank/testedAh': 0 }))))
    expect(spoilt).toMatchObject({ ok: false })
  })
})
