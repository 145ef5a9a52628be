import { describe, expect, it } from 'vitest'
import type { JobDocument } from '#core/job/document'
import { remedyOf } from '#core/remedies/catalogue'
import { assessed, goodJob, straightJob, withMeasured, withValues } from '#core/testing'
import { metric } from '#core/units/display'
import { formatQuantity, type Write } from '#core/units/format'
import { changesToMake } from './to-change'

/** A DC-DC of 50 A at the end of 9 m of 6 mm², behind a plug of 50 A: its feed collapses. */
function starvedDcdc(): JobDocument {
  const job = withValues(goodJob(), { 'links/link-1/ratedA': 50, 'links/link-1/lowestInputV': 11 })
  const cable = {
    fromPost: 'starting',
    toPost: 'link',
    lengthM: 9,
    areaMm2: 6,
    fuseA: 50,
    fuseKind: 'terminal-block',
    connectorA: 50,
  }
  return withMeasured(job, 'conductors', cable, { of: 'links/link-1' })
}

describe('the changes of a job', () => {
  it('hold nothing that another change makes needless: a smaller unit spares the thicker cable and the larger plug', () => {
    const { headline, changes } = assessed(starvedDcdc())
    expect(headline).toBe('Suits after 3 changes')
    expect(changes.map(({ id, value }) => [id, value])).toEqual([
      ['charger.replace', 30],
      ['fuse.size', 40],
      ['fuse.far-end', 40],
    ])
  })

  it('count a current that flows, not one that a starved unit would ask for', () => {
    const summaryOf = (id: string): string =>
      assessed(starvedDcdc()).checks.find((check) => check.id === id)!.summary
    expect(summaryOf('dcdc.input-voltage')).toContain('the cable supplies at most 60 A')
    expect(summaryOf('cable.ampacity')).toContain('carries 60 A')
    expect(summaryOf('cable.plug')).toContain('carries 60 A')
  })

  it('of two batteries for too much charge hold no lower current as well', () => {
    const job = withValues(goodJob(), { 'use/dailyAh': 260, 'use/daysAway': 2 })
    const { changes } = assessed(job)
    expect(changes.filter(({ id }) => id === 'battery.more-parallel')).toHaveLength(1)
    expect(changes.some(({ id }) => id === 'charger.limit-current')).toBe(false)
  })

  it('hold one monitor for a misleading gauge and a missing shunt, and name both checks', () => {
    const job = withMeasured(
      withValues(goodJob(), { 'use/monitor': 'bms', 'candidate/parallel': 2 }),
      'devices',
      {
        kind: 'gauge',
      },
    )
    const judgement = assessed(job)
    const q: Write = (value, unit) => formatQuantity(value, unit, metric)
    const monitors = changesToMake(judgement, judgement.checks, job, q).filter(
      ({ remedy }) => remedyOf(remedy).monitors,
    )
    expect(monitors.map(({ settles }) => settles.map((key) => key.split('@')[0]).toSorted())).toEqual([
      ['battery.monitor', 'battery.voltage-devices'],
    ])
  })

  it('hold one lead battery for an engine, of the size of its cranking label', () => {
    const job = withValues(straightJob({ kind: 'direct' }), {
      'startingBatteries/starting-1/present': 'no',
      'startingBatteries/starting-1/ah': null,
      'startingBatteries/starting-1/cca': 800,
    })
    const { changes, checks } = assessed(job)
    const leads = changes.filter(({ id }) => id === 'start.keep-lead' || id === 'start.own-battery')
    expect(leads.length).toBeLessThanOrEqual(1)
    const offered = checks.flatMap(({ remedies }) => remedies).find(({ id }) => id === 'start.keep-lead')
    expect(offered?.values?.ah).toBe(100)
  })
})
