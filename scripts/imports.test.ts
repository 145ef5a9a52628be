import { readFileSync } from 'node:fs'
import { isBuiltin } from 'node:module'
import { join } from 'node:path'
import { expect, it } from 'vitest'
import { root } from './lib/machine.mjs'

const staticImport = /^(?:import|export)\s(?:[^'"]*?\sfrom\s+)?['"]([^'"]+)['"]/gm

/** Packages that a script and the files it imports load before its first line runs. */
function packagesOf(file: string, seen = new Set<string>()): readonly string[] {
  if (seen.has(file)) return []
  seen.add(file)
  const names = [...readFileSync(file, 'utf8').matchAll(staticImport)].map(([, name]) => name!)
  return names.flatMap((name) => {
    if (isBuiltin(name)) return []
    return name.startsWith('.') ? packagesOf(join(file, '..', name), seen) : [name]
  })
}

const commands = JSON.parse(readFileSync(join(root, 'package.json'), 'utf8')) as {
  readonly scripts: Readonly<Record<string, string>>
}
/** Scripts that Node.js runs without a package, by their command. */
const scripts = Object.entries(commands.scripts).flatMap(([name, command]) => {
  const file = /^node (\S+\.mjs)/.exec(command)?.[1]
  return file ? [[name, file] as const] : []
})

it('covers the commands of a fresh clone', () => {
  const names = scripts.map(([name]) => name)
  expect(names).toEqual(
    expect.arrayContaining(['start', 'dev', 'test', 'bench', 'backup', 'upgrade', 'lint']),
  )
})

it.each([...scripts, ['.ci/run', 'scripts/first-start.mjs'] as const])(
  'npm run %s loads no package before packages are installed',
  (_name, file) => {
    expect(packagesOf(join(root, file))).toEqual([])
  },
)

it('finds a package that a script imports', () => {
  expect(packagesOf(join(root, 'eslint.config.mjs'))).toContain('typescript-eslint')
})
