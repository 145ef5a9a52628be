import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { FieldPath, JobDocument } from '#core/job/document'
import { knownAt } from '#core/job/document'
import { goodJob, withValues } from '#core/testing'
import { decide, type SaveOrder } from './order'
import { after, opened, pendingOf, reloaded, stateOf, toSend, type Saving, type Stored } from './saving'

const runs = Number(process.env.SYNC_RUNS ?? 600)
const fields = ['place/coldestC', 'place/hottestC', 'chargers/charger-1/floatV'] as const
const devices = ['Ann', 'Ben', 'Cia', 'Dov', 'Eva'] as const
type Device = (typeof devices)[number]

const valueAt = (job: JobDocument, path: FieldPath): unknown => knownAt(job, path)?.value
/** A value of one change: no two devices type the same. */
const typed = (count: number): number => count / 1000

type Answer =
  | { readonly kind: 'acknowledged'; readonly version: number }
  | { readonly kind: 'overtaken'; readonly theirs: Stored; readonly arrived: string | null }

/** A server of one job by the rule of the real one, with a note of each value that replaced another. */
class Server {
  private stored: Stored = { version: 1, document: goodJob(), updatedAt: '', updatedBy: 'nobody' }
  private readonly carriedOut = new Map<string, number>()
  readonly replaced: { readonly by: Device; readonly path: FieldPath; readonly before: unknown }[] = []
  orders = 0

  get job(): Stored {
    return this.stored
  }
  take(by: Device, order: SaveOrder): Answer {
    const decision = decide(order, { version: this.stored.version, epoch: 'one' }, (change) =>
      this.carriedOut.get(change),
    )
    if (decision.kind === 'repeated') return { kind: 'acknowledged', version: this.stored.version }
    if (decision.kind === 'overtaken') return { ...decision, theirs: this.stored }
    expect(this.carriedOut.has(order.change)).toBe(false)
    for (const path of fields) {
      const before = valueAt(this.stored.document, path)
      if (before !== valueAt(order.document, path)) this.replaced.push({ by, path, before })
    }
    const version = this.stored.version + 1
    this.carriedOut.set(order.change, version)
    this.orders++
    this.stored = { ...this.stored, version, document: order.document, updatedBy: by }
    return { kind: 'acknowledged', version }
  }
}

/** One phone or laptop: its saving, its order on the way, and the values its person has seen. */
class Person {
  saving: Saving
  request: SaveOrder | null = null
  /** Requests whose sender no longer waits: a slow network may still deliver them. */
  readonly late: SaveOrder[] = []
  readonly seen = new Set<string>()
  readonly typed = new Map<FieldPath, number>()
  /** Everything that was ever typed here. */
  private readonly own = new Set<unknown>()
  private orders = 0

  constructor(
    readonly name: Device,
    private readonly server: Server,
  ) {
    this.saving = opened(server.job)
    this.look()
  }

  private tell(event: Parameters<typeof after>[1]): void {
    this.saving = after(this.saving, event)
    this.look()
  }
  /** The person sees the values of the page, and both sides of a choice. */
  private look(): void {
    for (const path of fields) this.seen.add(`${path} ${String(valueAt(this.saving.document, path))}`)
    for (const { theirs } of this.saving.conflict?.conflicts ?? []) {
      const value = (theirs.after as { value?: unknown } | undefined)?.value
      this.seen.add(`${theirs.path} ${String(value)}`)
      // A device never asks its person to choose between two of their own values.
      expect(this.own.has(value)).toBe(false)
    }
  }

  edit(path: FieldPath, value: number): void {
    this.typed.set(path, value)
    this.own.add(value)
    this.tell({ kind: 'edited', document: withValues(this.saving.document, { [path]: value }) })
  }
  send(): void {
    const order = toSend(this.saving)
    if (!order) return
    const change = `${this.name} ${++this.orders}`
    this.tell({ kind: 'sending', change })
    this.request = { ...order, change }
  }
  answered(): void {
    if (!this.request) return
    const answer = this.server.take(this.name, this.request)
    this.request = null
    this.tell(answer)
  }
  lost(reached: 'server' | 'nobody' | 'server later'): void {
    if (!this.request) return
    if (reached === 'server') this.server.take(this.name, this.request)
    if (reached === 'server later') this.late.push(this.request)
    this.request = null
    this.tell({ kind: 'failed', trouble: { kind: 'unreachable' } })
  }
  deliverLate(): void {
    const order = this.late.shift()
    if (order) this.server.take(this.name, order)
  }
  reload(): void {
    // The request goes on its way without the page that sent it.
    if (this.request) this.late.push(this.request)
    this.request = null
    this.saving = reloaded(this.saving)
  }
  hear(): void {
    this.tell({ kind: 'news', theirs: this.server.job })
  }
  choose(mine: boolean): void {
    if (!this.saving.conflict) return
    for (const { mine: own } of mine ? [] : this.saving.conflict.conflicts) this.typed.delete(own.path)
    this.tell({ kind: 'resolved', keepMine: () => mine })
  }
  /** Until nothing is left to send. */
  settle(): void {
    while (this.late.length > 0) this.deliverLate()
    for (let round = 0; round < 8 && (stateOf(this.saving) !== 'saved' || this.request); round++) {
      this.choose(true)
      this.send()
      this.answered()
    }
  }
}

const step = fc.record({
  by: fc.constantFrom(...devices),
  what: fc.constantFrom(
    'edit',
    'edit',
    'edit',
    'send',
    'send',
    'answer',
    'answer',
    'lose the answer',
    'lose the request',
    'delay the request',
    'deliver late',
    'reload',
    'hear',
    'choose mine',
    'choose theirs',
  ),
  path: fc.constantFrom(...fields),
})

describe('five devices on one job, whatever the order of edits, answers, losses and reloads', () => {
  it('lose no change, double none, and replace no value unseen', () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 80, size: 'max' }), (steps) => {
        const server = new Server()
        const people = Object.fromEntries(devices.map((name) => [name, new Person(name, server)])) as Record<
          Device,
          Person
        >
        for (const [count, { by, what, path }] of steps.entries()) {
          const person = people[by]
          switch (what) {
            case 'edit':
              person.edit(path, typed(count))
              break
            case 'send':
              person.send()
              break
            case 'answer':
              person.answered()
              break
            case 'lose the answer':
              person.lost('server')
              break
            case 'lose the request':
              person.lost('nobody')
              break
            case 'delay the request':
              person.lost('server later')
              break
            case 'deliver late':
              person.deliverLate()
              break
            case 'reload':
              person.reload()
              break
            case 'hear':
              person.hear()
              break
            case 'choose mine':
              person.choose(true)
              break
            case 'choose theirs':
              person.choose(false)
          }
        }
        for (const name of devices) {
          const person = people[name]
          person.settle()
          expect(pendingOf(person.saving)).toEqual([])
          // The last value typed here stood on the server; somebody who replaced it saw it.
          for (const [path, value] of person.typed) {
            const isThere = valueAt(server.job.document, path) === value
            const wasReplaced = server.replaced.some((one) => one.path === path && one.before === value)
            expect(isThere || wasReplaced).toBe(true)
          }
        }
        for (const { by, path, before } of server.replaced)
          expect(people[by].seen.has(`${path} ${String(before)}`)).toBe(true)
      }),
      { numRuns: runs },
    )
  })
})
