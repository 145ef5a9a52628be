import { execFileSync } from 'node:child_process'
import { existsSync, symlinkSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { build } from 'esbuild'

const root = fileURLToPath(new URL('../..', import.meta.url))
/** The last commit with a fixed step, checked and solved as it was then, for comparison. */
export const commit = 'eade472'

/** A tree with its modules, by the names they had or have there. */
export interface Tree {
  readonly folder: string
  readonly name: 'before' | 'now'
  readonly modules: Readonly<Record<'plant' | 'inputs' | 'runs', string>>
  /** The name of `inputsOfJob`. */
  readonly inputsOf: string
}

/** The tree as it was, checked out next to this one, and this one. */
export function bothTrees(): readonly [Tree, Tree] {
  const folder = `${root}.data/before-${commit}`
  if (!existsSync(folder))
    execFileSync('git', ['worktree', 'add', '--detach', folder, commit], { cwd: root, stdio: 'ignore' })
  if (!existsSync(`${folder}/node_modules`)) symlinkSync(`${root}node_modules`, `${folder}/node_modules`)
  const shared = { inputs: './core/simulation/inputs', runs: './core/simulation/runs' }
  return [
    {
      folder,
      name: 'before',
      modules: { ...shared, plant: './core/simulation/from-job' },
      inputsOf: 'inputsOf',
    },
    {
      folder: root,
      name: 'now',
      modules: { ...shared, plant: './core/simulation/plant-of-job' },
      inputsOf: 'inputsOfJob',
    },
  ]
}

/** A program over the modules of a tree, as one file. @returns its path */
export async function bundled({ folder, name }: Tree, program: string, contents: string): Promise<string> {
  const outfile = `${root}.data/${program}-${name}.mjs`
  await build({
    stdin: { contents, resolveDir: folder, loader: 'ts' },
    bundle: true,
    platform: 'node',
    format: 'esm',
    outfile,
    logLevel: 'error',
  })
  return outfile
}
