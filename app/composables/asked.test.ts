import { flushPromises } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, shallowRef, type EffectScope } from 'vue'
import type { JobDocument } from '#core/job/document'
import { useAsked } from './asked'

vi.mock('../engine/client', () => ({ theEngine: () => ({}) }))

/** A job of which only the name matters here. */
const jobNamed = (name: string): JobDocument => ({ job: { name } }) as unknown as JobDocument

describe('the answer of the engine for a job', () => {
  let scope: EffectScope
  /** Requests that wait for their answer, by the name of the job. */
  const waiting = new Map<
    string,
    { readonly answer: (words: string) => void; readonly fail: (cause: Error) => void }
  >()
  const job = shallowRef<JobDocument | null>(null)
  const asked = () =>
    scope.run(() =>
      useAsked(
        (_engine, { job: { name } }) =>
          new Promise<string>((answer, fail) => waiting.set(name, { answer, fail })),
        () => job.value,
      ),
    )!
  /** Lets changes settle, as they do while someone types. */
  const settle = async (): Promise<void> => {
    await vi.advanceTimersByTimeAsync(100)
    await flushPromises()
  }

  beforeEach(() => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    setActivePinia(createPinia())
    waiting.clear()
    job.value = null
    scope = effectScope()
  })
  afterEach(() => {
    scope.stop()
    vi.useRealTimers()
  })

  it('asks nothing while no job is open', async () => {
    const { result, pending } = asked()
    await settle()
    expect(waiting.size).toBe(0)
    expect([result.value, pending.value]).toEqual([null, false])
  })

  it('gives the answer, and says until then that it is on its way', async () => {
    const { result, pending } = asked()
    job.value = jobNamed('Oyster workboat')
    await settle()
    expect(pending.value).toBe(true)
    waiting.get('Oyster workboat')!.answer('suits')
    await settle()
    expect([result.value, pending.value]).toEqual(['suits', false])
  })

  it('asks once for several changes in a row', async () => {
    asked()
    job.value = jobNamed('one')
    job.value = jobNamed('two')
    job.value = jobNamed('three')
    await settle()
    expect([...waiting.keys()]).toEqual(['three'])
  })

  it('drops an answer that a newer question has overtaken', async () => {
    const { result } = asked()
    job.value = jobNamed('before')
    await settle()
    job.value = jobNamed('after')
    await settle()
    waiting.get('after')!.answer('of after')
    await settle()
    waiting.get('before')!.answer('of before')
    await settle()
    expect(result.value).toBe('of after')
  })

  it('shows the error, and drops it with the next answer', async () => {
    const { problem, pending } = asked()
    job.value = jobNamed('bad')
    await settle()
    waiting.get('bad')!.fail(new Error('The engine stopped.'))
    await settle()
    expect([problem.value, pending.value]).toEqual(['The engine stopped.', false])
    job.value = jobNamed('good')
    await settle()
    waiting.get('good')!.answer('suits')
    await settle()
    expect(problem.value).toBe('')
  })

  it('shows nothing of a job that was closed, and waits for nothing', async () => {
    const { result, pending } = asked()
    job.value = jobNamed('first')
    await settle()
    waiting.get('first')!.answer('suits')
    await settle()
    job.value = jobNamed('second')
    await settle()
    job.value = null
    await settle()
    expect([result.value, pending.value]).toEqual([null, false])
  })
})
