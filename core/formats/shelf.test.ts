import fc from 'fast-check'
import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { partKinds, type Fields } from '#core/job/fields'
import { shelfKind, shelfKindIds, shelfKindsFor, valuesFromShelf, type ShelfKindId } from '#core/shelf/kinds'
import { checkShelfPart, readShelfCsv, writeShelfCsv } from './shelf-csv'
import { decodeText } from './bytes'
import { isPlainText } from './cell'
import { readTable, writeTable, type TableColumns } from './table'

const folder = new URL('../../demo/shelf/', import.meta.url)
const demo = (kind: ShelfKindId): string => readFileSync(new URL(`${kind}.csv`, folder), 'utf8')

describe('a table as spreadsheets write it', () => {
  const columns: TableColumns = {
    code: { type: 'text', label: 'Code', most: 40 },
    name: { type: 'text', label: 'Name', most: 40 },
  }
  it.each([',', ';', '\t'])('may have %j between its cells', (between) => {
    const { rows, problems } = readTable(`code${between}name\nA${between}Tern\n`, columns)
    expect(problems).toEqual([])
    expect(rows[0]!.values).toEqual({ code: 'A', name: 'Tern' })
  })
  it('may be in UTF-16 with its mark', () => {
    const little = Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from('code\nä', 'utf16le')])
    const big = Buffer.from(little).swap16()
    for (const bytes of [little, big]) expect(decodeText(bytes)).toEqual({ ok: true, text: 'code\nä' })
    expect(decodeText(Buffer.from([0xc3, 0x28])).ok).toBe(false)
  })
})

describe('a table of empty lines', () => {
  it('is read no further than its rows can reach', () => {
    const columns: TableColumns = { code: { type: 'text', label: 'Code', most: 40 } }
    const { rows, problems } = readTable(`code\nA\n${'\r\n'.repeat(200_000)}`, columns)
    expect(rows).toEqual([])
    expect(problems).toEqual([{ line: 80_001, column: '', reason: 'There are more than 20000 rows' }])
    expect(readTable(`code\nA\n${'\n'.repeat(1000)}B\n`, columns).rows).toHaveLength(2)
  })
})

describe('the demo shelf', () => {
  it('has every kind, at least 60 parts, and no fault', () => {
    const all = shelfKindIds.map((kind) => readShelfCsv(demo(kind), kind))
    expect(readdirSync(folder).filter((name) => name.endsWith('.csv'))).toHaveLength(shelfKindIds.length)
    expect(all.flatMap((read) => read.problems)).toEqual([])
    expect(all.flatMap((read) => read.parts).length).toBeGreaterThanOrEqual(60)
  })

  it('has the parts on which checks bite', () => {
    const batteries = readShelfCsv(demo('batteries'), 'batteries').parts.map((part) => part.values)
    expect(batteries.some((b) => b.mostParallel === 1 && b.purpose === 'house')).toBe(true)
    expect(batteries.some((b) => b.heater === 'yes')).toBe(true)
    expect(batteries.some((b) => b.warning === 'stop')).toBe(true)
    expect(
      readShelfCsv(demo('chargers'), 'chargers').parts.some((part) => part.values.equaliseStage === 'fixed'),
    ).toBe(true)
    expect(readShelfCsv(demo('dcdc'), 'dcdc').parts.some((part) => Number(part.values.solarMostV) < 30)).toBe(
      true,
    )
  })

  it.each(shelfKindIds)('%s go out and come in the same', (kind) => {
    const { parts } = readShelfCsv(demo(kind), kind)
    expect(readShelfCsv(writeShelfCsv(kind, parts), kind).parts.map(({ line: _l, ...part }) => part)).toEqual(
      parts.map(({ line: _l, ...part }) => part),
    )
  })
})

describe('a table with faults', () => {
  const header = 'code,name,ratedA (A),profile'
  const problems = (text: string) =>
    readShelfCsv(text, 'chargers').problems.map((p) => `${p.line} ${p.column}: ${p.reason}`)

  it('counts in whole numbers', () => {
    const text = 'code,name,mostParallel\nB1,Battery,2.5'
    expect(readShelfCsv(text, 'batteries').problems).toContainEqual({
      line: 2,
      column: 'mostParallel',
      reason: 'Enter a whole number',
    })
  })

  it('names line, column and reason, and gives the good rows', () => {
    const text = [
      header,
      'A1,Good,20,lithium',
      'A2,Bad,twenty,lithium',
      'A3,Bad,-4,lithium',
      'A4,Bad,20,magic',
      ',No code,20,fixed',
      'A1,Twice,20,fixed',
      'A5,Too,many,cells,here',
      '"A6","Two\nlines",30,fixed',
      'A7,After,9000 A,fixed',
    ].join('\r\n')
    expect(problems(text)).toEqual([
      '3 ratedA: Not a number of A',
      '4 ratedA: -4 cannot be: between 0 A and 1000 A',
      '5 profile: “magic” is not one of lithium, selectable, adjustable, automatic, fixed',
      '6 code: is empty',
      '7 code: A1 is in line 2 already',
      '8 : has 5 cells and the header 4',
      '9 name: holds characters that cannot be seen',
      '11 ratedA: 9000 A cannot be: between 0 A and 1000 A',
    ])
    expect(readShelfCsv(text, 'chargers')).toMatchObject({
      count: 9,
      parts: [{ code: 'A1', values: { ratedA: 20, profile: 'lithium' } }],
    })
  })

  it('is refused whole when its header is wrong', () => {
    expect(problems('')).toEqual(['1 : There is no header row'])
    expect(problems('code,name,colour\nA,B,red')).toEqual(['1 colour: is not a column of this table'])
    expect(problems('code,ratedA (A)\nA,3')).toEqual(['1 name: is missing in the header'])
    expect(problems('code,name,ratedA (mA)\nA,B,3')).toEqual(['1 ratedA: is in A, not in mA'])
    expect(problems('code,name,name\nA,B,C')).toEqual(['1 name: is twice in the header'])
  })

  it('reads semicolons, decimal commas, units in the cell, a byte-order mark and empty lines', () => {
    expect(
      readShelfCsv('\uFEFFcode;name;absorptionV (V)\n\nA1;One;14,4\n;;\nA2;Two;14.4 V\n', 'chargers'),
    ).toMatchObject({
      count: 2,
      problems: [],
      parts: [{ values: { absorptionV: 14.4 } }, { values: { absorptionV: 14.4 }, line: 5 }],
    })
  })

  it('takes nothing for a value that only looks like one of JavaScript’s own names', () => {
    expect(problems('code,name,profile\nA,B,constructor')).toHaveLength(1)
    expect(problems('code,name,toString\nA,B,x')).toEqual(['1 toString: is not a column of this table'])
  })

  it('with a header that is no header is refused, however long it is', () => {
    const wide = Array.from({ length: 300 }, (_, i) => `c${i}`).join(',')
    for (const header of [
      '('.repeat(200_000),
      `code,name,${'('.repeat(40_000)}`,
      wide,
      'x'.repeat(100_000),
    ]) {
      const read = readShelfCsv(`${header}\nA,B\n`, 'chargers')
      expect(read).toMatchObject({ parts: [], count: 0 })
      expect(read.problems.length).toBeGreaterThan(0)
    }
  })

  it('takes no characters that cannot be seen, as the form takes none', () => {
    for (const strange of ['\u0000', '\u0007', '\u202E', '\u2066', '\u200F'])
      expect(readShelfCsv(`code,name\nA,x${strange}y`, 'chargers').problems).toEqual([
        { line: 2, column: 'name', reason: 'holds characters that cannot be seen' },
      ])
  })

  it('goes out without a cell that a spreadsheet would calculate, and comes in as it was', () => {
    for (const name of ['=1+2', '+49', '-x', '@sum', "'Tis", "'=x"]) {
      const text = writeShelfCsv('chargers', [{ code: 'A', name, maker: '', values: { ratedA: 5 } }])
      expect(text).toContain(`A,'${name}`)
      expect(readShelfCsv(text, 'chargers').parts).toMatchObject([{ name, values: { ratedA: 5 } }])
    }
  })

  it('never throws, whatever the text', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 300 }), fc.constantFrom(...shelfKindIds), (text, kind) => {
        const read = readShelfCsv(`code,name\n${text}`, kind)
        return read.parts.length <= read.count
      }),
    )
  })
})

describe('words in a table', () => {
  const columns: TableColumns = {
    a: { type: 'text', label: 'A', most: 200 },
    b: { type: 'text', label: 'B', most: 200 },
  }
  it('come back as they were, quotes, commas and formulas too', () => {
    const word = fc
      .string({ minLength: 1, maxLength: 30 })
      .map((s) => s.trim())
      .filter((s) => s !== '' && isPlainText(s))
    fc.assert(
      fc.property(fc.array(fc.record({ a: word, b: word }), { minLength: 1, maxLength: 6 }), (rows) => {
        expect(readTable(writeTable(columns, rows), columns).rows.map((row) => row.values)).toEqual(rows)
      }),
    )
  })
})

describe('one part as typed', () => {
  const part = { code: 'X-1', name: 'Test', maker: '', values: { ratedA: 20 } }
  it.each([
    [{ ...part }, []],
    [{ ...part, code: 'no spaces here' }, ['code']],
    [{ ...part, name: '' }, ['name']],
    [{ ...part, values: { ratedA: -1 } }, ['ratedA']],
    [{ ...part, values: { ratedA: '9' } }, ['ratedA']],
    [{ ...part, values: { ratedA: '  ' } }, ['ratedA']],
    [{ ...part, values: { profile: 3 } }, ['profile']],
    [{ ...part, values: { profile: '' } }, ['profile']],
    [{ ...part, values: { colour: 'red' } }, ['colour']],
    [{ ...part, values: { ratedA: { $gt: 1 } } }, ['ratedA']],
    [{ ...part, values: { ratedA: NaN } }, ['ratedA']],
  ])('%j', (typed, columns) =>
    expect(checkShelfPart('chargers', typed as never).map((p) => p.column)).toEqual(columns),
  )
})

describe('from the shelf into a job', () => {
  it('values come as maker’s data, with the version that was used', () => {
    const [battery] = readShelfCsv(demo('batteries'), 'batteries').parts
    const taken = valuesFromShelf(
      { kind: 'batteries', code: battery!.code, version: 3, name: battery!.name, values: battery!.values },
      'candidate',
    )
    expect(taken).toMatchObject({
      name: 'Brindle 100 H',
      shelf: { code: 'BRI-100H', version: 3 },
      ahEach: { value: 100, how: 'maker' },
    })
  })

  it('every kind gives only fields that the part of the job has', () => {
    for (const kind of shelfKindIds) {
      const { fills } = shelfKind(kind)
      if (!fills) continue
      expect(shelfKindsFor(fills)).toContain(kind)
      const fields: Fields = partKinds[fills].fields
      for (const { values, code, name } of readShelfCsv(demo(kind), kind).parts) {
        const {
          name: _n,
          shelf: _s,
          ...given
        } = valuesFromShelf({ kind, code, version: 1, name, values }, fills)
        expect(Object.keys(given).filter((field) => !Object.hasOwn(fields, field))).toEqual([])
        expect(Object.keys(given).length).toBeGreaterThan(0)
      }
    }
    expect(
      valuesFromShelf({ kind: 'dcdc', code: 'D', version: 1, name: 'D', values: { ratedA: 30 } }, 'links'),
    ).toMatchObject({ kind: { value: 'dcdc' } })
    expect(
      valuesFromShelf(
        { kind: 'fuses', code: 'F', version: 1, name: 'F', values: { fuseA: 30 } },
        'conductors',
      ),
    ).not.toHaveProperty('name')
  })
})
