import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { cruise, type ICruiseResult } from 'dependency-cruiser'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import config from '../.dependency-cruiser.mjs'

let folder: string
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'layers-'))
})
afterEach(() => {
  rmSync(folder, { recursive: true })
})

/** Names of the rules that a small tree breaks. */
async function broken(files: Readonly<Record<string, string>>): Promise<string[]> {
  for (const [path, text] of Object.entries({
    'package.json': '{ "imports": { "#core/*": "./core/*.ts" } }',
    ...files,
  })) {
    mkdirSync(dirname(join(folder, path)), { recursive: true })
    writeFileSync(join(folder, path), text)
  }
  const { tsConfig: _own, ...options } = config.options
  const top = [...new Set(Object.keys(files).map((path) => path.split('/')[0]!))]
  const { output } = await cruise(top, {
    ...options,
    baseDir: folder,
    validate: true,
    ruleSet: { forbidden: config.forbidden as never },
  })
  return (output as ICruiseResult).summary.violations.map(({ rule }) => rule.name)
}

describe('the layers', () => {
  it('let a folder use the ones before it', async () => {
    expect(
      await broken({
        'core/job/a.ts': "import { b } from '#core/units/b'\nexport const a = b",
        'core/units/b.ts': 'export const b = 1',
      }),
    ).toEqual([])
  })

  it('catch an import upwards, of a type too', async () => {
    expect(
      await broken({
        'core/units/a.ts': "import type { B } from '#core/job/b'\nexport type A = B",
        'core/job/b.ts': 'export type B = 1',
      }),
    ).toEqual(['core-units-uses-what-stands-above-it'])
  })

  it('catch a circle between two files', async () => {
    const files = {
      'server/a.ts': "import { b } from './b'\nexport const a = (): number => b()",
      'server/b.ts': "import { a } from './a'\nexport const b = (): number => a()",
    }
    expect(new Set(await broken(files))).toEqual(new Set(['no-circle']))
  })

  it('catch a core that knows its users, and a page that takes more than types from the server', async () => {
    expect(
      await broken({
        'core/units/a.ts': "import { s } from '../../server/s'\nexport const a = s",
        'server/s.ts': 'export const s = 1',
        'app/p.ts': "import { s } from '../server/s'\nexport const p = s",
      }),
    ).toEqual(expect.arrayContaining(['core-knows-none-of-its-users', 'app-knows-the-server-by-its-types']))
  })

  it('catch a folder of the core that has no place', async () => {
    expect(
      await broken({
        'core/misc/a.ts': "import { b } from '#core/units/b'\nexport const a = b",
        'core/units/b.ts': 'export const b = 1',
      }),
    ).toEqual(['core-folder-has-its-place'])
  })
})
