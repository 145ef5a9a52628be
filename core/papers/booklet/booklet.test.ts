import { describe, expect, it } from 'vitest'
import type { JobDocument } from '#core/job/document'
import { withValues } from '#core/testing'
import { usualLetterhead } from '#core/quotation/terms'
import { chosen, head, shop } from '../../../scripts/lib/chosen-workboat'
import { specifiedJob } from '../../../scripts/lib/demo-shelf'
import { examples } from '../../../scripts/lib/examples'
import type { PaperBody } from '../head'
import { plainInputs } from '../inputs'
import { sheetInputs } from '../sheet'
import { bookletPaper } from './booklet'

const bookletOf = (job: JobDocument, more: object = {}): PaperBody =>
  bookletPaper(plainInputs(sheetInputs(job, { ...shop, letterhead: { ...usualLetterhead, ...more } }, head)))
/** The lines of a section, as one reads them. */
const linesIn = (paper: PaperBody, heading: string): string[] =>
  paper.sections
    .filter((section) => section.heading === heading)
    .flatMap(({ blocks }) =>
      blocks.flatMap((block) => {
        if (block.kind === 'text') return [block.line.map(({ text }) => text).join('')]
        if (block.kind === 'list') return block.items.map((line) => line.map(({ text }) => text).join(''))
        if (block.kind === 'facts') return block.facts.map(({ label, value }) => `${label}: ${value}`)
        return []
      }),
    )
const sentencesOf = (paper: PaperBody): string[] =>
  paper.sections
    .filter(({ heading }) => heading !== 'How to reach us')
    .flatMap(({ heading }) => linesIn(paper, heading))
    .flatMap((line) => line.split(/(?<=[.?!]) /))

/** Words of a sentence of the booklet, at most. */
const mostWords = 16
const demos = examples().filter(({ title }) => title.startsWith('job '))
const specified = demos
  .map(({ title, job }) => [title, specifiedJob(job)] as const)
  .filter(([, job]) => job.specified)

describe('the booklet', () => {
  it('has the serial numbers that were noted, and no heading without any', () => {
    const job = chosen
    const noted = { ...job, candidate: { ...job.candidate, serial: 'LT4829281' } }
    expect(linesIn(bookletOf(noted), 'Serial numbers')).toEqual([`${job.candidate.name}: LT4829281`])
    expect(linesIn(bookletOf(job), 'Serial numbers')).toEqual([])
  })

  it.each(specified)('of %s has short sentences, and no gap in them', (_, job) => {
    const sentences = sentencesOf(bookletOf(job))
    expect(sentences.length).toBeGreaterThan(30)
    expect(sentences.filter((one) => one.split(/\s+/).length > mostWords)).toEqual([])
    expect(JSON.stringify(sentences)).not.toMatch(/undefined|NaN|Infinity|null|\[object/)
  })

  it('counts the charge, the limit and the loads of this job', () => {
    const paper = bookletOf(chosen)
    expect(linesIn(paper, 'Your battery')).toEqual([
      'Brindle 200 H is a lithium iron phosphate (LFP) battery.',
      'It holds 200 Ah in a 12 V system.',
      'Plan with 160 Ah. The rest is a reserve that makes it last.',
    ])
    const together = linesIn(paper, 'What may run at the same time')
    expect(together).toContain('The battery delivers up to 150 A without a break.')
    expect(together).toContain('All of that may run at the same time.')
    // 160 Ah ÷ 85 A = 1.88 h = 113 min.
    expect(together).toContain('Deck winch: 85 A, alone for about 113 min from full')
    expect(linesIn(paper, 'Cost and life')).toContain('Over its life the battery can deliver about 7200 kWh.')
  })

  it('says that loads are too many, and which must run alone', () => {
    const heavy = withValues(chosen, { 'use/dcAtOnceA': 180 })
    expect(linesIn(bookletOf(heavy), 'What may run at the same time')).toContain(
      'That is 30 A too much. Switch the largest load off first.',
    )
    const alone = withValues(chosen, { 'loads/load-1/together': 'no', 'use/dcAtOnceA': 90 })
    expect(linesIn(bookletOf(alone), 'What may run at the same time')).toContain(
      'Run Deck winch only while the rest is off.',
    )
  })

  it('warns where the battery does not block charging in the cold, and where nothing warns', () => {
    const bare = withValues(chosen, {
      'candidate/coldCut': 'no',
      'candidate/warning': 'none',
      'use/warns': 'no',
    })
    const kept = { ...bare, specified: { ...bare.specified!, changes: [] } }
    const paper = bookletOf(kept)
    expect(linesIn(paper, 'In the cold')).toContain(
      'The battery does not block this by itself. Switch the chargers off when it is that cold.',
    )
    expect(linesIn(paper, 'No alarm')).toHaveLength(2)
    expect(linesIn(paper, 'Reading the voltage')).toHaveLength(7)
  })

  it('says what the customer notices before the battery switches itself off, whatever warns', () => {
    const headingsOf = (values: Parameters<typeof withValues>[1]): string[] => {
      const job = withValues(chosen, values)
      return bookletOf({ ...job, specified: { ...job.specified!, changes: [] } }).sections.map(
        ({ heading }) => heading,
      )
    }
    const alarm = 'When the alarm sounds'
    const stop = 'When the loads go off by themselves'
    expect(headingsOf({ 'candidate/warning': 'alarm', 'use/warns': 'no' })).toContain(alarm)
    expect(headingsOf({ 'candidate/warning': 'none', 'use/warns': 'yes' })).toContain(alarm)
    expect(headingsOf({ 'candidate/warning': 'stop', 'use/warns': 'no' })).toContain(stop)
  })

  it('asks to keep lead-acid charged apart where it shares the bus', () => {
    const hybrid = withValues(chosen, { 'use/mixed': 'hybrid' })
    expect(linesIn(bookletOf(hybrid), 'Storage over winter')).toContain(
      'Disconnect the lead-acid battery from it. Keep that one charged.',
    )
    expect(linesIn(bookletOf(chosen), 'Storage over winter')).toContain('Leave no charger on it.')
  })

  it('names the workshop and how to reach it', () => {
    const paper = bookletOf(chosen, { phone: '01632 960417', address: '3 Larkspur Slip\nWharf End' })
    expect(linesIn(paper, 'How to reach us')).toEqual([
      'Larkspur Slip Electrics · 3 Larkspur Slip, Wharf End · 01632 960417',
    ])
  })

  it('draws the main path and lists every fuse and switch with its place', () => {
    const paper = bookletOf(withValues(chosen, { 'fittings/main-switch/place': 'cabin' }))
    const section = paper.sections.find(({ heading }) => heading.startsWith('Where the switch'))!
    const [drawing, table] = section.blocks
    const drawn = JSON.stringify(drawing)
    for (const words of ['Battery +', 'Main fuse', 'Main switch', 'Positive bar'])
      expect(drawn).toContain(words)
    expect(table!.kind === 'table' && table!.rows.find(([number]) => number === 'S1')).toEqual([
      'S1',
      'Main switch',
      'Cabin',
      '200 A',
    ])
  })
})
