import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import type { JobDocument } from '#core/job/document'
import { asSpecified } from '#core/job/as-specified'
import { assessed, goodJob, long, withValues } from '#core/testing'
import { metric } from '#core/units/display'
import { heading, type Block, type Paper, type Section } from './blocks'
import { summaryOf as summaryOfJob } from './summary'
import { specifiedJob } from '../../scripts/lib/demo-shelf'

const folder = new URL('../../demo/jobs/', import.meta.url)
const demoJobs = readdirSync(folder).map(
  (name) => [name, JSON.parse(readFileSync(new URL(name, folder), 'utf8')) as JobDocument] as const,
)
const shop = { name: 'Larkspur Slip Electrics', units: metric, rules: {} }
const madeAt = '2026-11-21T09:00:00.000Z'

const summaryOf = (document: JobDocument): Paper => summaryOfJob(document, { ...shop, madeAt })
const section = (paper: Paper, heading: string): Section | undefined =>
  paper.sections.find((one) => one.heading === heading)
const findingsIn = ({ blocks }: Section): Extract<Block, { kind: 'findings' }>['findings'] =>
  blocks.flatMap((block) => (block.kind === 'findings' ? block.findings : []))

describe('a summary', () => {
  it.each(demoJobs)('of %s says the answer first, every check once, and how to be careful last', (_, job) => {
    const paper = summaryOf(job)
    const { checks, verdict, lanes } = assessed(job, shop)
    expect(paper.sections[0]!.blocks[0]).toMatchObject({ kind: 'answer', verdict })
    const paths = paper.sections.filter((one) => one.verdict)
    expect(paths).toHaveLength(lanes.length + 1)
    const suspect = checks.filter((check) => check.verdict !== 'suits')
    const told = paths.flatMap(findingsIn).filter((finding) => finding.verdict !== 'suits')
    expect(told.map(({ line }) => line[0]!.text).sort()).toEqual(
      suspect.map(({ title }) => heading(title).text).sort(),
    )
    expect(paper.sections.at(-1)).toMatchObject({ heading: 'Cautions' })
    expect(JSON.stringify(paper)).not.toMatch(/undefined|NaN|\bnull\b/)
    // No formula, and no question in the middle of a sentence.
    expect(JSON.stringify(paper)).not.toMatch(/ [÷×=] [\d(]|\?[.,]/)
  })
  it('of a job that suits asks for no change and names no obstacle', () => {
    const paper = summaryOf(goodJob())
    expect(section(paper, 'What to change')).toBeUndefined()
    expect(section(paper, 'Obstacles')).toBeUndefined()
    expect(paper.size).toBe('A4')
  })
  it(
    'of a specified job names the chosen battery and what is to be minded of the checks that suit',
    long,
    () => {
      const job = specifiedJob(demoJobs.find(([name]) => name.startsWith('0430'))![1])
      const paper = summaryOf(job)
      expect(section(paper, 'The battery itself')!.about).toBe(asSpecified(job).candidate.name)
      expect(asSpecified(job).candidate.name).not.toBe(job.candidate.name)
      expect(JSON.stringify(section(paper, 'Cautions'))).toMatch(
        /All sources together return \d+ Ah of the 252 Ah used a day\. Charge the battery from the mains or a generator/,
      )
    },
  )
  it('lists rules set for this job alone, and assumed values', () => {
    const job = { ...withValues(goodJob(), { 'place/coldestC': 3 }), rules: { windowLowV: 14 } }
    const rests = section(summaryOf(job), 'Basis')!
    expect(JSON.stringify(rests)).toContain('Rules set for this job only: ')
    expect(JSON.stringify(rests)).toContain('14.0 V')
  })
  it('is Letter for a shop that writes imperial units', () => {
    const imperial = { ...shop, units: { system: 'imperial', currency: '$' } as const }
    expect(summaryOfJob(goodJob(), { ...imperial, madeAt }).size).toBe('Letter')
  })
})
