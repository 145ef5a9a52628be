import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { goodJob } from '#core/testing'
import type { FieldPath, JobDocument } from '#core/job/document'
import { useView } from '../stores/view'
import { useEntering } from './entering'

/** The fields of the charger as they are known, and how often the bench was asked to change some. */
let charger: Record<string, unknown>
let steps: number
const take = (path: FieldPath, known: unknown): void => {
  charger[path.split('/').at(-1)!] = known
}
vi.mock('../stores/job', () => ({
  useJob: () => ({
    get document(): JobDocument {
      const job = goodJob()
      return { ...job, chargers: { 'charger-1': charger as never } }
    },
    setField: (path: FieldPath, known: unknown): void => {
      steps++
      take(path, known)
    },
    setFields: (fields: readonly (readonly [FieldPath, unknown])[]): void => {
      steps++
      for (const [path, known] of fields) take(path, known)
    },
  }),
}))

const absorption = 'chargers/charger-1/absorptionV' as FieldPath
const float = 'chargers/charger-1/floatV' as FieldPath

describe('values as they are entered', () => {
  beforeEach(() => {
    setActivePinia(createPinia())
    charger = { ...goodJob().chargers['charger-1'] }
    steps = 0
  })

  it('are known from where the person says they are copied', () => {
    useView().source = 'label'
    useEntering().enter(absorption, 14.2)
    expect(charger.absorptionV).toMatchObject({ value: 14.2, how: 'label' })
  })

  it('stay known as before where nothing else is said', () => {
    const { enter } = useEntering()
    enter(absorption, 14.2, 'maker')
    enter(absorption, 14.3)
    expect(charger.absorptionV).toMatchObject({ value: 14.3, how: 'maker' })
  })

  it('say who measured them, and when', () => {
    useEntering().enter(absorption, 14.3, 'measured')
    const { when, by, how } = charger.absorptionV as Record<string, string>
    expect(how).toBe('measured')
    expect(Number.isNaN(Date.parse(when!))).toBe(false)
    expect(by).not.toBe('')
  })

  it('lose who measured them once another is copied from a label', () => {
    const { enter } = useEntering()
    enter(absorption, 14.3, 'measured')
    enter(absorption, 14.4, 'label')
    expect(charger.absorptionV).toEqual({ value: 14.4, how: 'label' })
  })

  it('are no longer assumed once they are entered', () => {
    const { enter } = useEntering()
    enter(absorption, 14.2, 'assumed')
    enter(absorption, 14.4)
    expect((charger.absorptionV as { how: string }).how).not.toBe('assumed')
  })

  it('become unknown, and stay in the job', () => {
    const { enter } = useEntering()
    enter(absorption, 14.2, 'label')
    enter(absorption, null)
    expect(charger.absorptionV).toMatchObject({ value: null })
  })

  it('keep their properties that this version does not know', () => {
    charger.absorptionV = { value: 14.4, how: 'label', page: 7 }
    useEntering().enter(absorption, 14.2)
    expect(charger.absorptionV).toMatchObject({ value: 14.2, page: 7 })
  })

  it('go in together as one step, which one undo takes back', () => {
    useEntering().confirmAll([
      [absorption, 14.1],
      [float, 13.5],
    ])
    expect(charger).toMatchObject({ absorptionV: { value: 14.1 }, floatV: { value: 13.5 } })
    expect(steps).toBe(1)
  })
})
