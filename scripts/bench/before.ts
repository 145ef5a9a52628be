import { execFileSync } from 'node:child_process'
import { existsSync, symlinkSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { build } from 'esbuild'
import { median, ms } from './demo-jobs'

const root = fileURLToPath(new URL('../..', import.meta.url))
/** The last commit with a fixed step. */
const commit = 'eade472'
const rounds = 3

/** A typical year of three sources and two batteries, several times over; prints the milliseconds of each. */
const program = (plantOf: string, inputsOf: string): string => `
  import { readdirSync, readFileSync } from 'node:fs'
  import { plantOf } from './core/simulation/${plantOf}'
  import { ${inputsOf} as inputsOf } from './core/simulation/inputs'
  import { runNow } from './core/simulation/runs'
  import { readEpw, weatherOf } from './core/weather/epw'
  const root = process.argv[2]
  const epw = readEpw(readFileSync(root + '/public/weather/port-larkspur.epw', 'utf8'))
  const weather = weatherOf(epw.file, 10)
  const name = readdirSync(root + '/demo/jobs').find((file) => file.startsWith('0427'))
  const job = JSON.parse(readFileSync(root + '/demo/jobs/' + name, 'utf8'))
  const plant = plantOf(job, {}, 'new')
  const times = Array.from({ length: 6 }, () => {
    const begun = performance.now()
    runNow('typical-year', plant, inputsOf(job, 'typical-year'), weather)
    return performance.now() - begun
  })
  console.log(JSON.stringify(times))`

async function bundled(name: string, folder: string, contents: string): Promise<string> {
  const outfile = `${root}.data/bench-year-${name}.mjs`
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

/** The tree as it was, beside this one. */
function treeBefore(): string {
  const folder = `${root}.data/before-${commit}`
  if (!existsSync(folder))
    execFileSync('git', ['worktree', 'add', '--detach', folder, commit], { cwd: root, stdio: 'ignore' })
  if (!existsSync(`${folder}/node_modules`)) symlinkSync(`${root}node_modules`, `${folder}/node_modules`)
  return folder
}

/** A year of a run as it is and as it was, turn by turn in one go. */
export async function benchBefore(): Promise<void> {
  const before = treeBefore()
  const trees = [
    [before, await bundled('before', before, program('from-job', 'inputsOf'))],
    [root, await bundled('now', root, program('plant-of-job', 'inputsOfJob'))],
  ] as const
  const times: [number[], number[]] = [[], []]
  for (let round = 0; round < rounds; round++) {
    for (const [i, [tree, file]] of trees.entries()) {
      const printed = execFileSync(process.execPath, [file, tree], { encoding: 'utf8' })
      times[i]!.push(...(JSON.parse(printed) as number[]).slice(1))
    }
  }
  const [was, is] = times.map(median) as [number, number]
  console.log(
    `Typical year, three sources and two batteries, median of ${times[1].length}: ${ms(is)}, at ${commit} ${ms(was)}: ${(was / is).toFixed(1)} times as fast`,
  )
}
