import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { JobDocument } from '#core/job/document'
import { goodJob, withValues } from '#core/testing'
import { after, opened, pendingOf, stateOf, toSend, type Saving } from './saving'

const coldest = (value: number, job = goodJob()): JobDocument => withValues(job, { 'place/coldestC': value })
const hottest = (value: number, job = goodJob()): JobDocument => withValues(job, { 'place/hottestC': value })
const updatedAt = '2026-11-20T08:00:00Z'
const start = (): Saving => opened({ version: 1, document: goodJob() })
const edited = (saving: Saving, document: JobDocument): Saving => after(saving, { kind: 'edited', document })

describe('the saving of one job', () => {
  it('has nothing to send until something differs', () => {
    expect(toSend(start())).toBeNull()
    expect(stateOf(start())).toBe('saved')
    const saving = edited(start(), coldest(3))
    expect(toSend(saving)).toEqual({ version: 1, document: coldest(3) })
    expect(stateOf(saving)).toBe('unsaved')
  })

  it('sends one thing at a time, and what was edited meanwhile after it', () => {
    const going = edited(after(edited(start(), coldest(3)), { kind: 'sending' }), coldest(4))
    expect(toSend(going)).toBeNull()
    expect(stateOf(going)).toBe('saving')
    const arrived = after(going, { kind: 'acknowledged', version: 2 })
    expect(toSend(arrived)).toEqual({ version: 2, document: coldest(4) })
  })

  it('tells why a save did not arrive, and has it to send again', () => {
    const failed = after(after(edited(start(), coldest(3)), { kind: 'sending' }), {
      kind: 'failed',
      trouble: { kind: 'unreachable' },
    })
    expect(stateOf(failed)).toBe('unreachable')
    expect(toSend(failed)?.document).toEqual(coldest(3))
  })

  it('joins what someone else changed elsewhere, and names them', () => {
    const theirs = { version: 2, document: hottest(44), updatedBy: 'Phone', updatedAt }
    const joined = after(edited(start(), coldest(3)), { kind: 'overtaken', theirs })
    expect(joined.document).toEqual(hottest(44, coldest(3)))
    expect(joined.joined).toEqual({ by: 'Phone', values: 1 })
    expect(toSend(joined)?.version).toBe(2)
  })

  it('calls a change of its own that did arrive nobody else’s', () => {
    const again = after(edited(start(), coldest(3)), {
      kind: 'overtaken',
      theirs: { version: 2, document: coldest(3), updatedBy: 'Bench laptop', updatedAt },
    })
    expect(again.joined).toBeNull()
    expect(stateOf(again)).toBe('saved')
  })

  it('never meets itself: what arrived though its answer was lost is known again', () => {
    const lost = after(after(edited(start(), coldest(3)), { kind: 'sending' }), {
      kind: 'failed',
      trouble: { kind: 'unreachable' },
    })
    const back = edited(lost, goodJob())
    expect(toSend(back)).toEqual({ version: 1, document: goodJob() })
    const known = after(after(back, { kind: 'sending' }), {
      kind: 'overtaken',
      theirs: { version: 2, document: coldest(3), updatedBy: 'Bench laptop', updatedAt },
    })
    expect(known).toMatchObject({ conflict: null, joined: null })
    expect(toSend(known)).toEqual({ version: 2, document: goodJob() })
  })

  it.each([
    [true, 3],
    [false, 5],
  ])(
    'waits for a choice where both changed one value (mine: %s), and keeps what is typed until then',
    (mine, value) => {
      const open = after(edited(start(), coldest(3)), {
        kind: 'overtaken',
        theirs: { version: 2, document: coldest(5), updatedBy: 'Phone', updatedAt },
      })
      expect(stateOf(open)).toBe('conflict')
      expect(toSend(open)).toBeNull()
      const typedOn = edited(open, hottest(44, open.document))
      const done = after(typedOn, { kind: 'resolved', keepMine: () => mine })
      expect(done.document.place).toMatchObject({ coldestC: { value }, hottestC: { value: 44 } })
    },
  )
})

/** A server of some jobs that answers late, in any order, or not at all. */
class Server {
  readonly jobs = new Map<string, { version: number; document: JobDocument }>()
  put(
    id: string,
    version: number,
    document: JobDocument,
  ): { ok: true; version: number } | { ok: false; theirs: { version: number; document: JobDocument } } {
    const there = this.jobs.get(id)!
    if (there.version !== version) return { ok: false, theirs: there }
    this.jobs.set(id, { version: version + 1, document })
    return { ok: true, version: version + 1 }
  }
}

const step = fc.record({
  job: fc.constantFrom('a', 'b', 'c'),
  what: fc.constantFrom('edit', 'edit', 'send', 'answer', 'lose the answer', 'lose the request', 'elsewhere'),
  value: fc.integer({ min: -20, max: 19 }),
})

describe('whatever the order of edits, answers, failures and switches of job', () => {
  it('every job ends on the server as it was typed, or in a choice', () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 60 }), (steps) => {
        const server = new Server()
        const savings = new Map<string, Saving>()
        const onTheWay = new Map<string, { version: number; document: JobDocument }>()
        const hottestElsewhere = new Map<string, number>()
        for (const id of ['a', 'b', 'c']) {
          server.jobs.set(id, { version: 1, document: goodJob() })
          savings.set(id, start())
        }
        const tell = (id: string, event: Parameters<typeof after>[1]): void =>
          void savings.set(id, after(savings.get(id)!, event))
        const deliver = (id: string): void => {
          const order = onTheWay.get(id)
          if (!order) return
          onTheWay.delete(id)
          const answer = server.put(id, order.version, order.document)
          if (answer.ok) tell(id, { kind: 'acknowledged', version: answer.version })
          else tell(id, { kind: 'overtaken', theirs: { ...answer.theirs, updatedBy: 'Phone', updatedAt } })
        }
        const send = (id: string): void => {
          const order = toSend(savings.get(id)!)
          if (!order) return
          tell(id, { kind: 'sending' })
          onTheWay.set(id, order)
        }
        for (const { job: id, what, value } of steps) {
          const saving = savings.get(id)!
          switch (what) {
            case 'edit':
              tell(id, { kind: 'edited', document: coldest(value, saving.document) })
              break
            case 'send':
              send(id)
              break
            case 'answer':
              deliver(id)
              break
            case 'lose the answer': {
              const order = onTheWay.get(id)
              if (order) server.put(id, order.version, order.document)
              if (onTheWay.delete(id)) tell(id, { kind: 'failed', trouble: { kind: 'unreachable' } })
              break
            }
            case 'lose the request':
              if (onTheWay.delete(id)) tell(id, { kind: 'failed', trouble: { kind: 'unreachable' } })
              break
            case 'elsewhere': {
              const there = server.jobs.get(id)!
              server.jobs.set(id, {
                version: there.version + 1,
                document: hottest(value + 30, there.document),
              })
              hottestElsewhere.set(id, value + 30)
            }
          }
        }
        for (const id of ['a', 'b', 'c']) {
          const typed = savings.get(id)!.document.place.coldestC
          // A lost answer leaves a version here that is behind; a second round brings it home.
          for (let round = 0; round < 3; round++) {
            deliver(id)
            send(id)
            deliver(id)
            if (savings.get(id)!.conflict) tell(id, { kind: 'resolved', keepMine: () => true })
          }
          expect(pendingOf(savings.get(id)!)).toEqual([])
          expect(server.jobs.get(id)!.document.place.coldestC).toEqual(typed)
          expect(server.jobs.get(id)!.document.place.hottestC!.value).toBe(hottestElsewhere.get(id) ?? 35)
        }
      }),
      { numRuns: 1000 },
    )
  })
})
