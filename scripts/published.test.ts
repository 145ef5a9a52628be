import { readFileSync } from 'node:fs'
import { Validator } from '@seriousme/openapi-schema-validator'
import { describe, expect, it } from 'vitest'
import { allChecks } from '#core/assessment/checks/index'
import { describeChecks } from '#core/formats/describe-checks'
import { describeGlossary, glossary } from '#core/words/glossary'
import { examples } from './lib/examples'
import { describeApi } from './lib/openapi'
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

describe('the published description of the API', () => {
  const published = JSON.parse(readFileSync(new URL('../docs/openapi.json', import.meta.url), 'utf8')) as {
    paths: Record<string, Record<string, { summary: string }>>
  }
  it('is the one that the routes of the file tree give', async () =>
    expect(published).toEqual(JSON.parse(JSON.stringify(await describeApi()))))
  it('is valid OpenAPI 3.1', async () => {
    const validator = new Validator()
    const { valid, errors } = await validator.validate(structuredClone(published))
    expect({ valid, errors, version: validator.version }).toEqual({
      valid: true,
      errors: undefined,
      version: '3.1',
    })
  })
  it('describes the purpose of every route', () => {
    const silent = Object.entries(published.paths).flatMap(([path, operations]) =>
      Object.entries(operations)
        .filter(([, { summary }]) => summary.length < 10)
        .map(([method]) => `${method} ${path}`),
    )
    expect(silent).toEqual([])
  })
})
