import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { goodJob, withValues } from '#core/testing'
import type { JobDocument } from '#core/job/document'
import { decide, type SaveOrder } from '#core/sync/order'
import { useAccount } from './account'
import { useJob } from './job'
import { useJudging } from './judging'
import { useView } from './view'

// The engine next to the page, without a worker between.
vi.mock('../engine/client', async (original) => {
  const { Engine } = await import('../engine/engine')
  const engine = new Engine()
  return {
    ...(await original<object>()),
    theEngine: () => engine,
    asCallback: (listener: unknown) => listener,
  }
})

/** A server of one job, in memory, that can be cut off and changed from elsewhere. */
class FakeServer {
  isDeleted = false
  readonly carriedOut = new Map<string, number>()
  version = 1
  document: JobDocument = goodJob()
  reachable = true
  refuses = ''
  puts = 0
  /** Takes what it is sent and never answers. */
  isSilent = false
  by = 'Phone'

  answer(path: string, init?: RequestInit): Response | Promise<Response> {
    if (!this.reachable) throw new TypeError('no network')
    if (path.endsWith('/history')) return Response.json([])
    const stored = {
      id: 'job',
      version: this.version,
      document: this.document,
      updatedAt: '2026-11-20T08:00:00Z',
      updatedBy: this.by,
    }
    if (this.isDeleted) return Response.json({ error: 'There is no such job' }, { status: 404 })
    if (init?.method !== 'PUT') return Response.json(stored)
    this.puts++
    if (this.refuses) return Response.json({ error: this.refuses }, { status: 422 })
    const sent = JSON.parse(String(init.body)) as SaveOrder
    const decision = decide(sent, { version: this.version, epoch: '' }, (one) => this.carriedOut.get(one))
    if (decision.kind === 'overtaken')
      return Response.json({ error: 'changed', theirs: stored, arrived: decision.arrived }, { status: 409 })
    if (decision.kind === 'repeated') return Response.json(stored)
    this.change(sent.document)
    this.carriedOut.set(sent.change, this.version)
    if (this.isSilent) return new Promise(() => undefined)
    return Response.json({ ...stored, version: this.version })
  }

  change(document: JobDocument, by = 'Phone'): void {
    this.version++
    this.by = by
    this.document = document
  }
}

let server: FakeServer
let storage: Map<string, string>
const coldest = (value: unknown): JobDocument => withValues(goodJob(), { 'place/coldestC': value })
const type = (bench: ReturnType<typeof useJob>, path: string, value: number): void =>
  bench.setField(path, { value, how: 'measured' })
const rest = (ms = 3000): Promise<unknown> => vi.advanceTimersByTimeAsync(ms)

beforeEach(() => {
  vi.useFakeTimers()
  server = new FakeServer()
  storage = new Map()
  vi.stubGlobal('matchMedia', () => ({ matches: false }))
  vi.stubGlobal('localStorage', {
    getItem: (k: string) => storage.get(k) ?? null,
    setItem: (k: string, v: string) => void storage.set(k, v),
    removeItem: (k: string) => void storage.delete(k),
    key: (i: number) => [...storage.keys()][i] ?? null,
    get length() {
      return storage.size
    },
  })
  vi.stubGlobal('fetch', (path: string, init?: RequestInit) =>
    Promise.resolve().then(() => server.answer(path, init)),
  )
  setActivePinia(createPinia())
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

async function opened() {
  const bench = useJob()
  expect(await bench.open('job')).toBeNull()
  return bench
}

describe('saving', () => {
  it('keeps a change on the device at once, and sends it a moment later', async () => {
    const bench = await opened()
    type(bench, 'place/coldestC', 3)
    expect(bench.save.kind).toBe('unsaved')
    expect(storage.size).toBe(1)
    expect(server.puts).toBe(0)
    await rest()
    expect(bench.save.kind).toBe('saved')
    expect(server.document.place.coldestC!.value).toBe(3)
    expect(storage.size).toBe(0)
  })

  it('sends text that was typed during another save', async () => {
    const bench = await opened()
    type(bench, 'place/coldestC', 3)
    await rest(510)
    type(bench, 'place/coldestC', 4)
    await rest()
    expect(server.document.place.coldestC!.value).toBe(4)
    expect(bench.save.kind).toBe('saved')
  })

  it('goes on trying while there is no connection, and loses nothing', async () => {
    const bench = await opened()
    server.reachable = false
    type(bench, 'place/coldestC', 3)
    await rest(10_000)
    expect(bench.save.kind).toBe('unreachable')
    type(bench, 'place/hottestC', 44)
    await rest()
    server.reachable = true
    await rest()
    expect(server.document.place).toMatchObject({ coldestC: { value: 3 }, hottestC: { value: 44 } })
  })

  it('shows the server’s refusal, and keeps the change here', async () => {
    const bench = await opened()
    server.refuses = 'place/coldestC must be 40 or less'
    type(bench, 'place/coldestC', 3)
    await rest()
    expect(bench.save).toEqual({ kind: 'refused', error: 'place/coldestC must be 40 or less' })
    expect(storage.size).toBe(1)
  })

  it('says so when the browser has no room left', async () => {
    const bench = await opened()
    vi.stubGlobal('localStorage', {
      getItem: () => null,
      removeItem: () => undefined,
      setItem: () => {
        throw new DOMException('full', 'QuotaExceededError')
      },
    })
    type(bench, 'place/coldestC', 3)
    expect(bench.save.kind).toBe('full')
  })

  it('does not send a value that returns to its old state', async () => {
    const bench = await opened()
    type(bench, 'place/coldestC', 3)
    type(bench, 'place/coldestC', 12)
    await rest()
    expect(server.puts).toBe(0)
    expect(bench.save.kind).toBe('saved')
  })
})

describe('two jobs', () => {
  it('are saved each by itself: a save on its way keeps no other job waiting', async () => {
    const bench = await opened()
    const other = new FakeServer()
    const answers: (() => void)[] = []
    vi.stubGlobal('fetch', (path: string, init?: RequestInit) => {
      const answering = path.startsWith('/api/jobs/other') ? other : server
      if (init?.method !== 'PUT' || answering === other)
        return Promise.resolve().then(() => answering.answer(path, init))
      return new Promise<Response>((done) => answers.push(() => done(server.answer(path, init))))
    })
    type(bench, 'place/coldestC', 3)
    await rest(600)
    expect(answers).toHaveLength(1)
    expect(await bench.open('other')).toBeNull()
    type(bench, 'place/coldestC', 5)
    await rest()
    expect(other.document.place.coldestC!.value).toBe(5)
    expect(bench.save.kind).toBe('saved')
    answers[0]!()
    await rest()
    expect(server.document.place.coldestC!.value).toBe(3)
    await bench.open('job')
    type(bench, 'place/hottestC', 44)
    for (let i = 0; i < 4; i++) {
      await rest(600)
      answers.splice(0).forEach((answer) => answer())
    }
    expect(server.document.place.hottestC!.value).toBe(44)
    expect(bench.notice).toBe('')
    expect(storage.size).toBe(0)
  })

  it('that are left before they are saved are saved all the same', async () => {
    const bench = await opened()
    type(bench, 'place/coldestC', 3)
    await bench.open('other')
    await rest()
    expect(server.puts).toBe(1)
  })
})

describe('opening', () => {
  it('takes up a draft that never arrived', async () => {
    const first = await opened()
    server.reachable = false
    type(first, 'place/coldestC', 3)
    first.setTyping('place/hottestC', 'thirty')
    setActivePinia(createPinia())
    server.reachable = true
    const bench = await opened()
    expect(bench.notice).toContain('unsaved changes are back')
    expect(bench.document!.place.coldestC!.value).toBe(3)
    expect(bench.typing).toEqual({ 'place/hottestC': 'thirty' })
    bench.undo()
    expect(bench.typing).toEqual({})
    expect(bench.document!.place.coldestC!.value, 'what could not be read goes first').toBe(3)
    bench.undo()
    expect(bench.document!.place.coldestC!.value).toBe(12)
  })

  it('knows its own again where the page was loaded again before the answer came', async () => {
    const bench = await opened()
    server.isSilent = true
    type(bench, 'place/coldestC', 4)
    await rest()
    expect(server.document.place.coldestC!.value).toBe(4)
    server.isSilent = false
    setActivePinia(createPinia())
    const again = await opened()
    await rest()
    expect(again.notice).not.toContain('changed')
    expect(again.document!.place.coldestC!.value).toBe(4)
    expect(again.conflict).toBeNull()
  })

  it('opens a draft even without a connection', async () => {
    const first = await opened()
    server.reachable = false
    type(first, 'place/coldestC', 3)
    setActivePinia(createPinia())
    const bench = await opened()
    expect(bench.document!.place.coldestC!.value).toBe(3)
  })

  it('says when there is neither', async () => {
    server.reachable = false
    expect(await useJob().open('job')).toContain('cannot be reached')
  })

  it('passes over a draft that is broken', async () => {
    storage.set('jovial-anchor.draft.job.', '{broken')
    expect((await opened()).document).toEqual(goodJob())
  })

  it('leaves the changes of another person to that person', async () => {
    const first = await opened()
    server.reachable = false
    type(first, 'place/coldestC', 3)
    // The window is closed, and somebody else opens the next one.
    vi.clearAllTimers()
    server.reachable = true
    setActivePinia(createPinia())
    const account = useAccount()
    vi.spyOn(account, 'owner', 'get').mockReturnValue('ann')
    expect((await opened()).document!.place.coldestC!.value).toBe(12)
    await rest()
    expect(server.puts).toBe(0)
  })
})

describe('two people', () => {
  it('on different values are joined, and the person is told', async () => {
    const bench = await opened()
    server.change(coldest(5))
    type(bench, 'place/hottestC', 44)
    await rest()
    expect(bench.notice).toContain('Phone changed one value')
    expect(server.document.place).toMatchObject({ coldestC: { value: 5 }, hottestC: { value: 44 } })
  })

  it('are not called another where the change came by the name of this device', async () => {
    const bench = await opened()
    server.change(coldest(5), 'Bench laptop')
    type(bench, 'place/hottestC', 44)
    await rest()
    expect(bench.notice).toContain('Another page or device named Bench laptop changed one value')
  })

  it.each([
    [true, 3],
    [false, 5],
  ])('on one value wait for a choice (mine: %s)', async (mine, value) => {
    const bench = await opened()
    server.change(coldest(5))
    type(bench, 'place/coldestC', 3)
    type(bench, 'place/hottestC', 44)
    await rest(20_000)
    expect(bench.save.kind).toBe('conflict')
    expect(bench.conflict!.conflicts.map((c) => c.path)).toEqual(['place/coldestC'])
    expect(server.document.place.coldestC!.value).toBe(5)
    bench.resolve(() => mine)
    await rest()
    expect(server.document.place).toMatchObject({ coldestC: { value }, hottestC: { value: 44 } })
    expect(bench.save.kind).toBe('saved')
  })

  it('on one value who agree need no choice', async () => {
    const bench = await opened()
    server.change(coldest(5))
    type(bench, 'place/coldestC', 5)
    await rest()
    expect(bench.conflict).toBeNull()
    expect(bench.save.kind).toBe('saved')
  })
})

describe('a job that was deleted elsewhere', () => {
  it('is offered as a copy with the typed text', async () => {
    const bench = await opened()
    type(bench, 'place/coldestC', 3)
    server.isDeleted = true
    await rest()
    expect(bench.save.kind).toBe('gone')
    const copy = bench.keepAsCopy('New 1')!
    await bench.open(copy)
    expect(bench.document!.job.number).toBe('New 1')
    expect(bench.document!.place.coldestC!.value).toBe(3)
  })

  it('goes on where it was restored', async () => {
    const bench = await opened()
    type(bench, 'place/coldestC', 3)
    server.isDeleted = true
    await rest()
    server.isDeleted = false
    await bench.refresh('job')
    await rest()
    expect(bench.save.kind).toBe('saved')
    expect(server.document.place.coldestC!.value).toBe(3)
  })
})

describe('a job that is made without the server', () => {
  it('is kept here, and sent under its own id once the server can be reached', async () => {
    server.reachable = false
    const bench = useJob()
    const id = bench.make(goodJob())
    await bench.open(id)
    type(bench, 'place/coldestC', 3)
    await rest()
    expect(bench.save.kind).toBe('unreachable')
    setActivePinia(createPinia())
    const again = useJob()
    await again.open(id)
    expect(again.document!.place.coldestC!.value).toBe(3)
    server.reachable = true
    server.version = 0
    await rest()
    expect(again.save.kind).toBe('saved')
    expect(server.document.place.coldestC!.value).toBe(3)
  })
})

describe('undo', () => {
  it('takes one field typed in one go back at once, and others one by one', async () => {
    const bench = await opened()
    for (const value of [1, 14, 14.4]) type(bench, 'chargers/charger-1/floatV', value)
    type(bench, 'place/coldestC', 3)
    bench.undo()
    expect(bench.document!.place.coldestC!.value).toBe(12)
    bench.undo()
    expect(bench.document!.chargers['charger-1']!.floatV!.value).toBe(13.5)
    expect(bench.canUndo).toBe(false)
    bench.redo()
    bench.redo()
    expect(bench.document!.place.coldestC!.value).toBe(3)
    expect(bench.canRedo).toBe(false)
  })

  it('of an alternator takes its link away with it', async () => {
    const bench = await opened()
    const before = Object.keys(bench.document!.links).length
    bench.addPart('alternators')
    expect(Object.keys(bench.document!.links)).toHaveLength(before + 1)
    bench.undo()
    expect(Object.keys(bench.document!.links)).toHaveLength(before)
  })
})

describe('trying a remedy', () => {
  it('shows the verdicts that would follow, and ends with the next change', async () => {
    server.document = withValues(goodJob(), {
      'chargers/charger-1/equaliseStage': 'switchable',
      'chargers/charger-1/equaliseV': 15.5,
    })
    const [judging, view] = [useJudging(), useView()]
    const bench = await opened()
    await rest()
    expect(judging.found!.verdict).toBe('suits-once-changed')
    expect(judging.looksAhead).toBe(false)
    const remedy = view.selectedCheck!.remedies[0]!
    judging.tryRemedy(remedy)
    await rest()
    expect(judging.trialJudged!.found.verdict).toBe('suits')
    expect(judging.found!.verdict).toBe('suits-once-changed')
    judging.tryRemedy(remedy)
    expect(judging.trialJudged).toBeNull()
    judging.tryRemedy(remedy)
    type(bench, 'place/coldestC', 11)
    expect(judging.trial).toBeNull()
  })

  it('of another job than the one that was checked is never shown for it', async () => {
    const judging = useJudging()
    const bench = await opened()
    await rest()
    expect(judging.assessment).not.toBeNull()
    void bench.open('other')
    expect(judging.assessment).toBeNull()
  })
})
