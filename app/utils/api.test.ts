import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ask, read } from './api'

/** What the server says, one answer after another; what is no answer is a lost connection. */
let answers: (Response | null)[]
let asked: string[]

beforeEach(() => {
  vi.useFakeTimers()
  asked = []
  vi.stubGlobal('fetch', (path: string) => {
    asked.push(path)
    const answer = answers.shift()
    return answer ? Promise.resolve(answer) : Promise.reject(new TypeError('no network'))
  })
})
afterEach(() => {
  vi.unstubAllGlobals()
  vi.useRealTimers()
})

const refusal = (): Response => Response.json({ error: 'There is no such job' }, { status: 404 })

describe('asking the server', () => {
  it('gives the data, or the words of a refusal', async () => {
    answers = [Response.json([1, 2]), refusal()]
    expect(await ask('/api/jobs')).toEqual({ kind: 'ok', data: [1, 2] })
    expect(await ask('/api/jobs/1')).toEqual({
      kind: 'refused',
      status: 404,
      refused: { error: 'There is no such job' },
    })
  })
  it('says once that it cannot be reached: no answer, one that says so, or one that is no JSON', async () => {
    answers = [null, Response.json({ error: 'later' }, { status: 503 }), new Response('<html>')]
    for (let i = 0; i < 3; i++) expect(await ask('/api/jobs')).toEqual({ kind: 'unreachable' })
    expect(asked).toHaveLength(3)
  })
})

describe('reading from the server', () => {
  const reading = async (): Promise<unknown> => {
    const answer = read('/api/shelf')
    await vi.advanceTimersByTimeAsync(5000)
    return answer
  }
  it('is repeated if the server is unreachable, and returns the later answer', async () => {
    answers = [null, Response.json({ error: 'later' }, { status: 503 }), Response.json(['part'])]
    expect(await reading()).toEqual({ kind: 'ok', data: ['part'] })
    expect(asked).toHaveLength(3)
  })
  it('is given up after three tries', async () => {
    answers = []
    expect(await reading()).toEqual({ kind: 'unreachable' })
    expect(asked).toHaveLength(3)
  })
  it('is not repeated where the server refuses', async () => {
    answers = [refusal()]
    expect(await reading()).toMatchObject({ kind: 'refused' })
    expect(asked).toHaveLength(1)
  })
})
