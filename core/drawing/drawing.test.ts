import ELK from 'elkjs/lib/elk.bundled.js'
import { csvParse } from 'd3-dsv'
import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { wiredJob } from '#core/assessment/wired'
import { withSpecified } from '#core/job/as-specified'
import { changesBetween } from '#core/job/changes'
import type { JobDocument } from '#core/job/document'
import { runsCsv, wiringPartsCsv } from '#core/formats/wiring-csv'
import { demoShelf, specifiedJob } from '../../scripts/lib/demo-shelf'
import { wiringPaper } from '#core/papers/wiring'
import { goodJob, withMeasured, withValues, type Values, long } from '#core/testing'
import { metric } from '#core/units/display'
import { writerIn } from '#core/units/format'
import { drawingOf } from './drawing'
import { layoutOf, linesOf, type Layout } from './layout'
import { partsOfWiring, swapsOf } from '#core/wiring/lists'
import { networkOf } from '#core/wiring/of-job'
import { paperPalette } from './look'
import { svgOf, writeSvg } from './svg'

const folder = new URL('../../demo/jobs/', import.meta.url)
const demos = readdirSync(folder).map(
  (name) =>
    [
      name.replace('.json', ''),
      JSON.parse(readFileSync(new URL(name, folder), 'utf8')) as JobDocument,
    ] as const,
)
const elk = new ELK()
const q = writerIn(metric)
const laidOut = (job: JobDocument): Promise<Layout> => layoutOf(drawingOf(networkOf(job), q), elk)

interface Box {
  readonly id: string
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}
const meet = (a: Box, b: Box): boolean =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height

describe('the drawing', () => {
  it.each(demos)('of %s has no words over others, and its boxes hold their words', async (_name, job) => {
    const { nodes, edges } = await laidOut(job)
    const boxes: Box[] = [...nodes, ...edges.map(({ id, label }) => ({ id: `words of ${id}`, ...label }))]
    for (const [i, a] of boxes.entries())
      for (const b of boxes.slice(0, i))
        expect({ a: a.id, b: b.id, meet: meet(a, b) }).toMatchObject({ meet: false })
    for (const node of nodes) {
      const { title, lines } = linesOf(node)
      if (node.symbol !== 'bar')
        expect(node.height).toBeGreaterThanOrEqual((title.length + lines.length) * 14)
    }
  })
  it.each(demos)('of %s as specified stands on A4 in letters of 7 pt at least', long, async (_name, job) => {
    const { width, height } = await laidOut(specifiedJob(job))
    // 539 × 680 pt are left for it; its letters are 12 units high.
    expect(12 * Math.min(539 / width, 680 / height)).toBeGreaterThan(7)
  })
  it.each(demos)(
    'of %s draws the main path in each pole, the shunt in the negative alone',
    long,
    (_name, job) => {
      const network = networkOf(specifiedJob(withValues(job, { 'use/monitor': 'shunt', 'use/shuntA': 500 })))
      const { nodes, edges } = drawingOf(network, q)
      const at = (id: string) => edges.filter(({ from, to }) => from === id || to === id)
      expect(at('shunt').map(({ pole }) => pole)).toEqual(['negative', 'negative'])
      const mains = edges.filter(({ id }) => /^main-/.test(id))
      for (const { id, pole } of mains)
        expect({ id, pole }).toEqual({ id, pole: id.includes('return') ? 'negative' : 'positive' })
      // What the negative path leads to is never a positive bar.
      const reached = new Set(['shunt'])
      for (const one of reached)
        for (const { from, to, pole } of at(one))
          if (pole === 'negative') reached.add(from === one ? to : from)
      expect(reached.has('bar-plus')).toBe(false)
      expect(nodes.filter(({ symbol }) => symbol === 'bar').every(({ title }) => /[+−]$/.test(title))).toBe(
        true,
      )
    },
  )
  it('says that both pins of a plug are used where the return is a cable', long, () => {
    const { nodes } = drawingOf(
      networkOf(specifiedJob(demos.find(([name]) => name.startsWith('0430'))![1])),
      q,
    )
    expect(nodes.find(({ symbol }) => symbol === 'plug')!.lines).toContain('pins + and −')
  })
  it('has sources above the bar and loads below', async () => {
    const { nodes } = await laidOut(demos[0]![1])
    const y = (id: string): number => nodes.find((node) => node.id === id)!.y
    for (const above of ['bank', 'alternator-1', 'charger-1']) expect(y(above)).toBeLessThan(y('bar-plus'))
    for (const below of ['load-1', 'panel']) expect(y(below)).toBeGreaterThan(y('bar-plus'))
  })
  it('shows hand-set, existing, new and removed parts', async () => {
    const job = withValues(demos[0]![1], { 'runs/load-1-feed/lengthM': 7 })
    const { nodes, edges } = await laidOut(job)
    expect(edges.find(({ id }) => id === 'load-1-feed')).toMatchObject({ isSet: true, state: 'found' })
    expect(edges.find(({ id }) => id === 'main-lead')).toMatchObject({ isSet: false, state: 'new' })
    expect(nodes.find(({ id }) => id === 'house-bank')).toMatchObject({ state: 'goes' })
  })
  it.each(demos)('of %s tolerates the number of each thin line where it ends', (_name, found) => {
    const job = withValues(found, {
      'candidate/warning': 'stop',
      'alternators/alternator-1/regulator': 'external',
    })
    const network = networkOf(job)
    const { nodes } = drawingOf(network, q)
    expect(network.lines.map(({ kind }) => kind)).toContain('stop')
    for (const { number, kind, of } of network.lines) {
      const bearing = nodes.filter(({ lines }) =>
        lines.some((words) => words.split(/[ ,]+/).includes(number)),
      )
      const ends = bearing.filter(({ id, symbol }) => id !== 'house-bank' && symbol !== 'battery')
      expect({ number, kind, of, ends: ends.length }).toMatchObject({ ends: 1 })
      expect(bearing.some(({ symbol }) => symbol === 'battery')).toBe(kind === 'stop')
    }
  })
  it('shows the rating of an existing shunt, or that nobody has read it', () => {
    const words = (values: Values) =>
      drawingOf(networkOf(withValues(goodJob(), values)), q).nodes.find(({ id }) => id === 'shunt')!
    expect(words({ 'use/shuntA': 350 })).toMatchObject({ state: 'found' })
    expect(words({ 'use/shuntA': 350 }).lines).toContain('350 A')
    expect(words({ 'use/shuntA': null }).lines).toContain('rating unknown')
    expect(words({ 'use/shuntA': null, 'fittings/shunt/ratedA': 300 }).lines).toContain('300 A')
  })
  it('is text of an SVG in which nothing someone wrote is markup', async () => {
    const job = demos[0]![1]
    const named = {
      ...job,
      loads: { ...job.loads, 'load-1': { ...job.loads['load-1'], name: '<script>&"' } },
    }
    const svg = writeSvg(
      svgOf(await laidOut(named as JobDocument), {
        palette: paperPalette,
        verdicts: new Map(),
        chosen: null,
      }),
    )
    expect(svg).toContain('&lt;script&gt;&amp;&quot;')
    expect(svg).not.toContain('<script>')
  })
  it('shows the worst verdict of a run', async () => {
    const layout = await laidOut(demos[0]![1])
    const drawn = (verdicts: ReadonlyMap<string, 'does-not-suit'>): string =>
      writeSvg(svgOf(layout, { palette: paperPalette, verdicts, chosen: null }))
    expect(drawn(new Map([['runs/main-lead', 'does-not-suit']]))).toContain(
      paperPalette.verdicts['does-not-suit'],
    )
    expect(drawn(new Map())).not.toContain(paperPalette.verdicts['does-not-suit'])
  })
})

describe('the lists', () => {
  it('count cable with its allowance, two lugs a conductor, and each new fuse', () => {
    const network = networkOf(
      withValues(goodJob(), { 'runs/main-lead/lengthM': 10, 'runs/main-lead/areaMm2': 95 }),
    )
    const parts = partsOfWiring(network)
    expect(parts).toContainEqual({
      what: 'Cable 95 mm², red, 90 °C',
      quantity: 11,
      unit: 'm',
      wanted: {
        kind: 'conductors',
        exactly: { areaMm2: 95, material: 'copper' },
        least: { insulationC: 90 },
      },
      // 95 mm² of copper is 851 g a metre, and a quarter more with its sheath.
      kg: expect.closeTo(11 * 0.851 * 1.25, 1) as number,
    })
    expect(parts).toContainEqual({
      what: 'Lug 95 mm², M10',
      quantity: 2,
      unit: '',
      wanted: { kind: 'lugs', exactly: { areaMm2: 95, stud: 'M10' }, least: {} },
      kg: null,
    })
    expect(
      parts.filter(({ what }) => what.startsWith('Fuse ')).reduce((sum, { quantity }) => sum + quantity, 0),
    ).toBe(network.posts.filter(({ kind, state }) => kind === 'fuse' && state === 'new').length)
  })
  it('name the cables moved to a replacement, and the fuse that is carried over', () => {
    const found = withMeasured(
      goodJob(),
      'conductors',
      { lengthM: 3, areaMm2: 16, fuseKind: 'class-t', fuseA: 40 },
      { of: 'chargers/charger-1' },
    )
    const charger = { ...found.chargers['charger-1'], name: 'New charger' }
    const changes = changesBetween(found, { ...found, chargers: { 'charger-1': charger } } as JobDocument)
    const specified = {
      name: 'New charger',
      at: '2026-11-20T10:00:00.000Z',
      by: 'Ida',
      battery: [],
      steps: [],
      accepted: [],
      changes,
    }
    const swaps = swapsOf(networkOf(withSpecified(found, specified)))
    expect(swaps.map(({ terminal }) => terminal)).toEqual(['New charger', 'New charger, negative'])
    expect(swaps[0]!.runs).toHaveLength(1)
    expect(swaps[0]!.carriedOver).toHaveLength(1)
  })
})

describe('the tables', () => {
  it('have a row for each run, no formula out of a name, and nothing if nothing is known', () => {
    const found = demos[0]![1]
    const named = {
      ...found,
      loads: { ...found.loads, 'load-1': { ...found.loads['load-1'], name: '=1+1' } },
    }
    const wired = wiredJob(named as JobDocument, {})
    const rows = csvParse(runsCsv(wired))
    expect(rows).toHaveLength(wired.network.runs.length)
    expect(rows.find(({ run }) => run === 'W14')).toMatchObject({
      to: "'=1+1",
      'size (mm²)': '',
      'length (m)': '',
    })
    const bought = csvParse(wiringPartsCsv(wired, demoShelf()))
    expect(bought).toHaveLength(wired.parts.length)
    const cable = bought.find(({ part }) => part!.startsWith('Cable 50 mm², red'))!
    expect(Number(cable['weight about (kg)'])).toBeCloseTo(0.56 * Number(cable.quantity), 1)
    expect(Number(cable['price each'])).toBeGreaterThan(0)
    const lessSleeves = demoShelf().filter(({ kind }) => kind !== 'sleeves')
    const without = csvParse(wiringPartsCsv(wired, lessSleeves))
    expect(without.find(({ part }) => part!.startsWith('Heat-shrink'))!['price each']).toBe('')
  })
})

describe('the figures of a run', () => {
  it('show the effect of one size less and one more, and the deciding limit', () => {
    const { runs } = wiredJob(goodJob(), {})
    const lead = runs.find(({ id }) => id === 'main-lead')!
    const [less, own, more] = lead.sizes
    expect(less!.carries).toBe(false)
    expect(own).toMatchObject({ carries: true, loses: true })
    expect(more!.lostV).toBeLessThan(own!.lostV)
    expect(lead.governs).toBe('fuse')
    expect(lead.heatW).toBeCloseTo(lead.amps * lead.lostV, 9)
  })
  it('show the voltage at a load at its end, and nothing elsewhere', () => {
    const { runs, network } = wiredJob(goodJob(), {})
    const left = (id: string): number | null => runs.find((run) => run.id === id)!.leftV
    expect(left('main-lead')).toBeNull()
    expect(left('charger-1-feed')).toBeNull()
    const restV = network.units.find(({ kind }) => kind === 'battery')!
    expect(left('panel-feed')).toBeLessThan((restV as { restV: number }).restV)
    expect(left('panel-feed')).toBeGreaterThan(11)
    expect(left('starting-1-crank')).toBeLessThan(left('link-1-in-feed')!)
  })
  it('say that the voltage decided where a run is long', () => {
    const job = withValues(goodJob(), { 'runs/link-1-out-feed/lengthM': 14 })
    expect(wiredJob(job, {}).runs.find(({ id }) => id === 'link-1-out-feed')!.governs).toBe('voltage')
  })
})

it('the plan has every run twice and every fitting once among its labels', async () => {
  const job = demos[0]![1]
  const wired = wiredJob(job, {})
  const drawing = svgOf(await laidOut(job), { palette: paperPalette, verdicts: new Map(), chosen: null })
  const paper = wiringPaper({
    job,
    wired,
    drawing,
    shop: { name: 'Slip', units: metric },
    madeAt: '2026-11-26T00:00:00.000Z',
  })
  const labels = paper.sections.find(({ heading }) => heading === 'Labels')!.blocks[0]!
  const cables = wired.network.runs.filter(({ areaMm2 }) => areaMm2 !== null)
  const fittings = wired.network.posts.filter(({ fitting }) => fitting?.number)
  expect(labels.kind === 'cards' && labels.cards.length).toBe(2 * cables.length + fittings.length)
})
