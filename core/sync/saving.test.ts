import { describe, expect, it } from 'vitest'
import type { JobDocument } from '#core/job/document'
import { goodJob, withValues } from '#core/testing'
import {
  after,
  madeHere,
  opened,
  pendingOf,
  reloaded,
  stateOf,
  toSend,
  type Saving,
  type Stored,
} from './saving'

const coldest = (value: number, job = goodJob()): JobDocument => withValues(job, { 'place/coldestC': value })
const hottest = (value: number, job = goodJob()): JobDocument => withValues(job, { 'place/hottestC': value })
const start = (): Saving => opened({ version: 1, document: goodJob() })
const edited = (saving: Saving, document: JobDocument): Saving => after(saving, { kind: 'edited', document })
const sending = (saving: Saving, change = 'first'): Saving => after(saving, { kind: 'sending', change })
const unanswered = (saving: Saving): Saving =>
  after(saving, { kind: 'failed', trouble: { kind: 'unreachable' } })
const phone = (document: JobDocument, version = 2): Stored => ({
  version,
  document,
  updatedBy: 'Phone',
  updatedAt: '2026-11-20T08:00:00Z',
})
const overtaken = (saving: Saving, theirs: Stored, arrived: string | null = null): Saving =>
  after(saving, { kind: 'overtaken', theirs, arrived })
const doneJob = (): JobDocument => ({ ...goodJob(), job: { ...goodJob().job, stage: 'done' } })

describe('the saving of one job', () => {
  it('has nothing to send until something differs', () => {
    expect(toSend(start())).toBeNull()
    expect(stateOf(start())).toBe('saved')
    const saving = edited(start(), coldest(3))
    expect(toSend(saving)).toEqual({ version: 1, document: coldest(3), unsure: [] })
    expect(stateOf(saving)).toBe('unsaved')
  })

  it('sends one order at a time, and later edits after it', () => {
    const going = edited(sending(edited(start(), coldest(3))), coldest(4))
    expect(toSend(going)).toBeNull()
    expect(stateOf(going)).toBe('saving')
    const arrived = after(going, { kind: 'acknowledged', version: 2 })
    expect(toSend(arrived)).toMatchObject({ version: 2, document: coldest(4) })
  })

  it('says why a save did not arrive, and sends it again with the id that may have arrived', () => {
    const failed = unanswered(sending(edited(start(), coldest(3))))
    expect(stateOf(failed)).toBe('unreachable')
    expect(toSend(failed)).toMatchObject({ document: coldest(3), unsure: ['first'] })
    expect(toSend(reloaded(sending(failed, 'second')))).toMatchObject({ unsure: ['first', 'second'] })
  })

  it('merges changes of other values, and names who made them', () => {
    const joined = overtaken(edited(start(), coldest(3)), phone(hottest(44)))
    expect(joined.document).toEqual(hottest(44, coldest(3)))
    expect(joined.joined).toEqual({ by: 'Phone', values: 1 })
    expect(toSend(joined)?.version).toBe(2)
  })

  it('takes the same change of somebody else for agreement', () => {
    const again = overtaken(edited(start(), coldest(3)), phone(coldest(3)))
    expect(again.joined).toBeNull()
    expect(stateOf(again)).toBe('saved')
  })

  it('knows its own change again whose answer was lost, also where it was taken back since', () => {
    const back = edited(unanswered(sending(edited(start(), coldest(3)))), goodJob())
    expect(toSend(back)).toMatchObject({ version: 1, document: goodJob(), unsure: ['first'] })
    const known = overtaken(sending(back, 'second'), phone(coldest(3)), 'first')
    expect(known).toMatchObject({ conflict: null, joined: null })
    expect(toSend(known)).toMatchObject({ version: 2, document: goodJob() })
  })

  it('does not take the same value of somebody else for its own lost order', () => {
    const back = edited(unanswered(sending(edited(start(), coldest(3)))), coldest(4))
    const theirs = overtaken(sending(back, 'second'), phone(coldest(3)), null)
    expect(theirs.conflict?.conflicts).toHaveLength(1)
  })

  it.each([
    [true, 3],
    [false, 5],
  ])('waits for a choice where both changed one value (mine: %s), and keeps later edits', (mine, value) => {
    const open = overtaken(edited(start(), coldest(3)), phone(coldest(5)))
    expect(stateOf(open)).toBe('conflict')
    expect(toSend(open)).toBeNull()
    const later = edited(open, hottest(44, open.document))
    const done = after(later, { kind: 'resolved', keepMine: () => mine })
    expect(done.document.place).toMatchObject({ coldestC: { value }, hottestC: { value: 44 } })
  })

  it('asks about a value too that is edited while a choice is open', () => {
    const open = overtaken(edited(start(), coldest(3)), phone(hottest(50, coldest(5))))
    expect(open.conflict?.conflicts.map(({ path }) => path)).toEqual(['place/coldestC'])
    const later = edited(open, hottest(44, open.document))
    expect(later.conflict?.conflicts.map(({ path }) => path)).toEqual(['place/coldestC', 'place/hottestC'])
  })

  it('ends a choice where the other value is typed here', () => {
    const open = overtaken(edited(start(), coldest(3)), phone(coldest(5)))
    expect(stateOf(edited(open, coldest(5)))).toBe('saved')
  })

  it('brings back a part that was taken out, where a value in it is kept', () => {
    const mine = withValues(goodJob(), { 'chargers/charger-1/floatV': 13.4 })
    const { 'charger-1': _gone, ...others } = goodJob().chargers
    const open = overtaken(edited(start(), mine), phone({ ...goodJob(), chargers: others }))
    const kept = after(open, { kind: 'resolved', keepMine: () => true })
    expect(kept.document).toEqual(mine)
    expect(after(open, { kind: 'resolved', keepMine: () => false }).document.chargers).toEqual(others)
  })

  it('offers its changes on top of a job that was handed over meanwhile', () => {
    const open = overtaken(edited(start(), coldest(3)), phone(doneJob()))
    expect(open.conflict?.conflicts).toMatchObject([
      { mine: { after: { value: 3 } }, theirs: { after: { value: 12 } } },
    ])
    expect(after(open, { kind: 'resolved', keepMine: () => false }).document).toEqual(doneJob())
    expect(after(open, { kind: 'resolved', keepMine: () => true }).document).toEqual(coldest(3, doneJob()))
  })

  it('shows a change of somebody else as soon as it is told, but not while an order is open', () => {
    const told = after(start(), { kind: 'news', theirs: phone(hottest(44)) })
    expect(told).toMatchObject({ document: hottest(44), version: 2, joined: { by: 'Phone', values: 1 } })
    expect(after(told, { kind: 'news', theirs: phone(goodJob(), 2) })).toBe(told)
    const open = sending(edited(start(), coldest(3)))
    expect(after(open, { kind: 'news', theirs: phone(hottest(44)) })).toBe(open)
  })

  it('sends a job that was made here though nothing was typed, and takes its number from the server', () => {
    const made = madeHere(goodJob())
    expect(toSend(made)).toMatchObject({ version: 0 })
    const going = edited(sending(made), coldest(3))
    const numbered = { ...goodJob(), job: { ...goodJob().job, number: '0500' } }
    const done = after(going, { kind: 'acknowledged', version: 1, epoch: 'e', document: numbered })
    expect(done.document).toEqual(coldest(3, numbered))
    expect(pendingOf(done)).toHaveLength(1)
  })

  it('keeps typed text of a job that was deleted elsewhere, and sends it no more', () => {
    const gone = after(sending(edited(start(), coldest(3))), { kind: 'failed', trouble: { kind: 'gone' } })
    expect(stateOf(edited(gone, coldest(4)))).toBe('gone')
    expect(toSend(edited(gone, coldest(4)))).toBeNull()
    expect(pendingOf(gone)).toHaveLength(1)
  })
})
