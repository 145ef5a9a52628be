import { isCount } from '#core/job/field'
import Ajv2020 from 'ajv/dist/2020'
import fc from 'fast-check'
import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { emptyJob, jobFormatVersion, listParts, type JobDocument } from '#core/job/document'
import { partKinds, type PartKind } from '#core/job/fields'
import { evenly, goodJob, withValues, long } from '#core/testing'
import { decodeTable, decodeText } from './bytes'
import { describeTables } from './describe-tables'
import { checkJob, readJobFile, SoundGroups, writeJobFile } from './job-file'
import { jobJsonSchema } from './json-schema'

const root = new URL('../../', import.meta.url)
const text = (path: string): string => readFileSync(new URL(path, root), 'utf8')
const demos = readdirSync(new URL('demo/jobs/', root)).map(
  (name) => [name, text(`demo/jobs/${name}`)] as const,
)
const validate = new Ajv2020({ strict: false, allErrors: true, formats: { 'date-time': true } }).compile(
  jobJsonSchema,
)

/** A copy of the good job's data with something put at a path, or taken out. */
const spoilt = (...changes: readonly (readonly [path: string, value: unknown])[]): unknown => {
  const data = JSON.parse(JSON.stringify(goodJob())) as Record<string, unknown>
  for (const [path, value] of changes) {
    const names = path.split('/')
    const last = names.pop()!
    const group = names.reduce((inner, name) => inner[name] as Record<string, unknown>, data)
    if (value === undefined) Reflect.deleteProperty(group, last)
    else group[last] = value
  }
  return data
}
const problemsOf = (data: unknown): Record<string, string> => {
  const read = checkJob(data)
  return read.ok ? {} : Object.fromEntries(read.problems.map((p) => [p.path, p.message]))
}

describe('a job file', () => {
  it.each(demos)('%s comes back as it went out, to the letter', (_name, file) => {
    const read = readJobFile(file)
    expect(read.ok).toBe(true)
    if (read.ok) expect(writeJobFile(read.job)).toBe(file)
  })

  it('keeps properties that this version does not know, at every level', () => {
    const data = spoilt(
      ['later', { a: [1, { b: null }] }],
      ['job/colour', 'red'],
      ['chargers/charger-1/odd', 'kept'],
      ['chargers/charger-1/ratedA/serial', 'kept too'],
    )
    const read = checkJob(data)
    expect(read.ok && JSON.parse(writeJobFile(read.job))).toEqual(data)
  })

  it('loses nothing over any path of values', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(
          ...listParts(goodJob()).flatMap(({ kind, path }) =>
            Object.entries((partKinds[kind] as PartKind).fields).flatMap(([name, field]) =>
              field.type === 'quantity' ? [{ path: `${path}/${name}`, field }] : [],
            ),
          ),
        ),
        evenly(0, 1),
        ({ path, field }, share) => {
          const [least, most] = field.limits
          const value = least + (most - least) * share
          const job = withValues(goodJob(), { [path]: isCount(field) ? Math.round(value) : value })
          const read = readJobFile(writeJobFile(job))
          expect(read).toEqual({ ok: true, job })
        },
      ),
      { numRuns: 200 },
    )
  })

  it('may start with a byte order mark', () => expect(readJobFile(`\uFEFF${demos[0]![1]}`).ok).toBe(true))
})

describe('bad files are refused with words', () => {
  it('two and a half batteries', () => {
    const read = readJobFile(writeJobFile(withValues(goodJob(), { 'candidate/parallel': 2.5 })))
    expect(read.ok ? [] : read.problems).toEqual([
      { path: 'candidate/parallel', message: 'must be a whole number' },
    ])
  })

  it.each([
    ['an empty file', '', /empty/],
    ['text that is no JSON', '{"format": "jovial-anchor/job",\n"version": 1,,}', /not valid JSON/],
    ['a list', '[1]', /one job/],
    ['something else in JSON', '{"name":"x"}', /missing/],
    ['another format', '{"format":"other"}', /must be jovial-anchor\/job/],
    ['a newer version', '{"format":"jovial-anchor/job","version":99}', /newer version/],
    ['null', 'null', /one job/],
  ])('%s', (_name, file, words) => {
    const read = readJobFile(file)
    expect(read.ok).toBe(false)
    if (!read.ok) expect(read.problems[0]!.message).toMatch(words)
  })

  it('say the line on which the text breaks', () => {
    const read = readJobFile('{\n  "format": "jovial-anchor/job",\n  "version": 1,,\n}')
    expect(!read.ok && read.problems[0]!.line).toBe(3)
  })

  it.each([
    ['a missing field', spoilt(['chargers', undefined]), { chargers: 'is missing' }],
    ['a missing value', spoilt(['place/coldestC/value', undefined]), { 'place/coldestC': 'is missing' }],
    ['text for a number', spoilt(['place/coldestC/value', '12']), { 'place/coldestC': 'must be a number' }],
    [
      'a number for a choice',
      spoilt(['candidate/chemistry/value', 4]),
      { 'candidate/chemistry': 'must be one of: lfp, nmc, other, null' },
    ],
    ['negative Ah', spoilt(['candidate/ahEach/value', -5]), { 'candidate/ahEach': 'must be 1 or more' }],
    [
      '900 V',
      spoilt(['chargers/charger-1/absorptionV/value', 900]),
      { 'chargers/charger-1/absorptionV': 'must be 80 or less' },
    ],
    [
      'a number too large',
      JSON.parse(JSON.stringify(goodJob()).replace('"value":200,', '"value":1e999,')),
      { 'candidate/ahEach': 'is too large a number' },
    ],
    [
      'a number too large where nobody looks',
      JSON.parse('{"format":"jovial-anchor/job","version":1,"later":1e999}'),
      { later: 'is too large a number' },
    ],
    [
      'an unknown way of knowing',
      spoilt(['candidate/ahEach/how', 'guessed']),
      { 'candidate/ahEach/how': 'must be one of: measured, maker, label, customer, assumed' },
    ],
    [
      'a part with a strange name',
      spoilt(['chargers/Shore Charger!', {}]),
      { 'chargers/Shore Charger!': 'is not a usable name here; parts are named like charger-1' },
    ],
    [
      'a link to nowhere',
      spoilt(['links/link-1/from', 'alternators/alternator-9']),
      { 'links/link-1/from': 'points at alternators/alternator-9, which is not in this job' },
    ],
    [
      'a link to the wrong kind',
      spoilt(['links/link-1/from', 'chargers/charger-1']),
      { 'links/link-1/from': 'points at chargers/charger-1, which is not in this job' },
    ],
    [
      'a rule out of its limits',
      spoilt(['rules/windowHighV', 99]),
      { 'rules/windowHighV': 'must be 15.5 or less' },
    ],
    [
      'an unknown school',
      spoilt(['rules/chargerSchool', 'hope']),
      { 'rules/chargerSchool': 'must be one of: window, replace' },
    ],
    ['a list for a part', spoilt(['place', []]), { place: 'must be a group of values in braces' }],
    [
      'a NUL in a name',
      spoilt(['job/name', 'a\u0000b']),
      { 'job/name': 'holds characters that cannot be stored' },
    ],
    [
      'half a character',
      spoilt(['job/name', 'a\ud800']),
      { 'job/name': 'holds characters that cannot be stored' },
    ],
    [
      'a name that is too long',
      spoilt(['job/name', 'x'.repeat(201)]),
      { 'job/name': 'is too long, at most 200 characters' },
    ],
    [
      'a prototype in disguise',
      JSON.parse(JSON.stringify(goodJob()).replace('"rules":{}', '"rules":{"__proto__":{"a":1}}')),
      { 'rules/__proto__': 'is not a usable name' },
    ],
  ])('%s', (_name, data, problems) => expect(problemsOf(data)).toEqual(problems))

  it('more than one fault is told of at once', () => {
    expect(
      Object.keys(problemsOf(spoilt(['place/coldestC/value', 'x'], ['place/hottestC/value', 999]))),
    ).toEqual(['place/coldestC', 'place/hottestC'])
  })

  it('endless nesting is refused without endless work', () => {
    let deep: unknown = 1
    for (let i = 0; i < 5000; i++) deep = { deep }
    expect(Object.values(problemsOf({ ...goodJob(), deep }))).toEqual(['is nested too deeply'])
  })

  it('markup in a name is only text', () => {
    const name = '<img src=x onerror=alert(1)>'
    const read = checkJob({ ...goodJob(), job: { ...goodJob().job, name } })
    expect(read.ok && read.job.job.name).toBe(name)
  })

  it('never throws, whatever the data', () => {
    fc.assert(
      fc.property(
        fc.jsonValue(),
        fc.constantFrom('job', 'place', 'chargers', 'rules', 'candidate', 'version'),
        (junk, section) => {
          expect(typeof checkJob({ ...emptyJob('1'), [section]: junk }).ok).toBe('boolean')
          expect(typeof readJobFile(JSON.stringify(junk)).ok).toBe('boolean')
        },
      ),
      { numRuns: 500 },
    )
  })
})

describe('groups that were found sound before', () => {
  it('change nothing in the result, whatever is saved one after the other', long, () => {
    const sound = new SoundGroups()
    const jobs = demos.map(([, file]) => JSON.parse(file) as Record<string, unknown>)
    fc.assert(
      fc.property(
        fc.constantFrom(...jobs),
        fc.constantFrom(...Object.keys(jobs[0]!), 'proving', 'unknown', 'constructor'),
        fc.oneof(fc.constant(undefined), fc.jsonValue(), fc.constantFrom(...jobs)),
        (job, name, junk) => {
          const other =
            junk && typeof junk === 'object' && Object.hasOwn(junk, name) ? junk[name as never] : junk
          const data = { ...job, [name]: other }
          expect(checkJob(data, sound)).toEqual(checkJob(data))
        },
      ),
      { numRuns: 500 },
    )
  })
  it('are forgotten, the oldest first, where they are many', long, () => {
    const sound = new SoundGroups()
    const of = (note: string) => ({ ...emptyJob('1'), notes: { use: note.repeat(5000) } })
    for (let i = 0; i < 3000; i++) expect(checkJob(of(String.fromCharCode(0x4e00 + i)), sound).ok).toBe(true)
    expect(sound.letters).toBeLessThanOrEqual(8_000_000)
  })
})

describe('bytes', () => {
  it('a picture is called a picture', () =>
    expect(decodeText(Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 1, 2))).toMatchObject({
      ok: false,
      error: expect.stringContaining('PNG') as string,
    }))
  it('broken UTF-8 is said to be no text', () =>
    expect(decodeText(Uint8Array.of(0xc3, 0x28))).toMatchObject({ ok: false }))
  it('text is text', () =>
    expect(decodeText(new TextEncoder().encode('14,4 V · naïve'))).toEqual({
      ok: true,
      text: '14,4 V · naïve',
    }))
  it('a table may come from an old spreadsheet, but not from bytes that are no text', () => {
    expect(decodeTable(new TextEncoder().encode('Größe'))).toEqual({ ok: true, text: 'Größe' })
    expect(decodeTable(Uint8Array.from('Größe', (letter) => letter.charCodeAt(0)))).toEqual({
      ok: true,
      text: 'Größe',
    })
    expect(decodeTable(Uint8Array.of(0xc3, 0, 0x28))).toMatchObject({ ok: false })
    expect(decodeTable(Uint8Array.of(0x25, 0x50, 0x44, 0x46))).toMatchObject({ ok: false })
  })
})

describe('the published schema', () => {
  it('is the one in docs', () => expect(JSON.parse(text('docs/job.schema.json'))).toEqual(jobJsonSchema))

  it.each(demos)('takes %s', (_name, file) => {
    expect(validate(JSON.parse(file)), JSON.stringify(validate.errors)).toBe(true)
  })

  it('refuses the same files as the application', () => {
    const same = (data: unknown): void =>
      expect({ data, valid: validate(data) }).toEqual({ data, valid: checkJob(data).ok })
    same(goodJob())
    same(spoilt(['chargers', undefined]))
    same(spoilt(['place/coldestC/value', 'x']))
    same(spoilt(['candidate/ahEach/value', -5]))
    same(spoilt(['candidate/chemistry/value', 'lead']))
    same(spoilt(['candidate/chemistry/value', null]))
    same(spoilt(['job/dueDate', '']))
    same(spoilt(['specified', { name: 'x' }]))
    same(spoilt(['rules/windowHighV', 99]))
    same(spoilt(['job/dueDate', 'soon']))
    same(spoilt(['chargers/Bad Name', {}]))
  })
})

describe('the demo jobs', () => {
  it.each(demos)('%s names every value’s source', (_name, file) => {
    const job = JSON.parse(file) as JobDocument
    for (const { kind, part } of listParts(job)) {
      for (const name of Object.keys((partKinds[kind] as PartKind).fields)) {
        const known = part[name] as { value: unknown; how?: string; by?: string } | undefined
        if (known && known.value !== null)
          expect({ name, how: known.how }).not.toEqual({ name, how: undefined })
        if (known?.how === 'measured') expect(known.by).toBeTruthy()
      }
    }
  })
})

describe('a file of version 1', () => {
  const old = (): Record<string, unknown> => {
    const { solar, sources, generators, loads, alternatives, notes, startingBatteries, ...rest } = JSON.parse(
      writeJobFile(goodJob()),
    ) as Record<string, unknown>
    const newer = [solar, sources, generators, loads, alternatives, notes, startingBatteries]
    return { ...rest, version: 1, startingBattery: { capacityAh: { value: 70 } }, extra: newer.length }
  }
  it('is migrated, and keeps its content', () => {
    const read = checkJob(old())
    expect(read).toMatchObject({
      ok: true,
      job: {
        version: jobFormatVersion,
        solar: {},
        loads: {},
        notes: {},
        startingBatteries: { 'starting-1': { capacityAh: { value: 70 } } },
        extra: 7,
        candidate: goodJob().candidate,
      },
    })
  })
  it('is still refused for its errors', () => {
    expect(checkJob({ ...old(), place: { coldestC: { value: 'cold' } } })).toMatchObject({
      ok: false,
      problems: [{ path: 'place/coldestC', message: 'must be a number' }],
    })
  })
})

describe('the tables in docs', () => {
  it('are those that are read', () =>
    expect(readFileSync(new URL('docs/tables.md', root), 'utf8')).toBe(describeTables()))
})
