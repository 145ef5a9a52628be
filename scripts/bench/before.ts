import { execFileSync } from 'node:child_process'
import { bothTrees, bundled, commit, type Tree } from '../lib/before'
import { median, ms } from './demo-jobs'

const rounds = 3

/** A typical year of three sources and two batteries, several times over; prints the milliseconds of each. */
const program = ({ modules, inputsOf }: Tree): string => `
  import { readdirSync, readFileSync } from 'node:fs'
  import { plantOf } from '${modules.plant}'
  import { ${inputsOf} as inputsOf } from '${modules.inputs}'
  import { runNow } from '${modules.runs}'
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

/** A year of a run as it is and as it was, turn by turn in one go. */
export async function benchBefore(): Promise<void> {
  const trees = bothTrees()
  const files = await Promise.all(trees.map((tree) => bundled(tree, 'bench-year', program(tree))))
  const times: [number[], number[]] = [[], []]
  for (let round = 0; round < rounds; round++) {
    for (const [i, { folder }] of trees.entries()) {
      const printed = execFileSync(process.execPath, [files[i]!, folder], { encoding: 'utf8' })
      times[i]!.push(...(JSON.parse(printed) as number[]).slice(1))
    }
  }
  const [was, is] = times.map(median) as [number, number]
  console.log(
    `Typical year, three sources and two batteries, median of ${times[1].length}: ${ms(is)}, at ${commit} ${ms(was)}: ${(was / is).toFixed(1)} times as fast`,
  )
}
