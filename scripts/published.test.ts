import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { allChecks } from '#core/assessment/checks/index'
import { describeChecks } from '#core/formats/describe-checks'
import { describeGlossary, glossary } from '#core/words/glossary'
import { examples } from './lib/examples'
import { layersPicture } from './lib/layers-picture'

describe('the published list of checks', () => {
  const text = describeChecks(examples())
  it('is the one in docs, as npm run schema writes it', () =>
    expect(readFileSync(new URL('../docs/assessment.md', import.meta.url), 'utf8')).toBe(text))
  it('has every check with a formula, a source and its verdicts', () => {
    expect(text).not.toContain('No example applies')
    for (const { id } of allChecks) {
      const section = text.split(`### \`${id}\` `)[1]!.split('###')[0]!
      expect({
        id,
        formula: /- Formula \(.+\): .+/.test(section),
        limit: /- Limit from: .+/.test(section),
        ends: /- Verdicts: .+/.test(section),
      }).toEqual({ id, formula: true, limit: true, ends: true })
      expect(section).not.toMatch(/undefined|NaN/)
    }
  })
})

it('the published glossary is the one of the help page, without a word twice in a topic', () => {
  expect(readFileSync(new URL('../docs/glossary.md', import.meta.url), 'utf8')).toBe(describeGlossary())
  for (const { words } of Object.values(glossary))
    expect(new Set(words.map(({ word }) => word)).size).toBe(words.length)
})

it('the published picture of the layers is that of the lint list', () =>
  expect(readFileSync(new URL('../docs/layers.svg', import.meta.url), 'utf8')).toBe(layersPicture()))
