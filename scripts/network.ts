// npm run --silent network -- FILE.json --case NAME: voltages and currents of the wiring of a job in a case, as JSON.
// npm run --silent netlist -- FILE.json --case NAME: the same case as a netlist. --case list: the names of the cases.
import { writeNetlist } from '#core/formats/netlist'
import { caseOf, casesOf } from '#core/network/cases'
import { circuitOf, startOf } from '#core/network/circuits'
import { networkOf } from '#core/network/of-job'
import { solve } from '#core/network/solution'
import { fail, jobFromFile } from './lib/job-argument'

const [what, file, ...rest] = process.argv.slice(2)
const given = rest[0] === '--case' ? rest[1] : rest[0]?.startsWith('--case=') ? rest[0].slice(7) : undefined
const use = `npm run --silent ${what} -- FILE.json --case NAME`
if (!file || file.startsWith('--')) fail(`Name a job file: ${use}`)
if (!given) fail(`Name a case: ${use}; --case list prints their names`)
const network = networkOf(await jobFromFile(file))
if (given === 'list')
  process.stdout.write(
    casesOf(network)
      .map(({ id }) => `${id}\n`)
      .join(''),
  )
else {
  const at = caseOf(network, given) ?? fail(`${given}: no such case; --case list prints their names`)
  const circuit = circuitOf(network, at)
  if (what === 'netlist')
    process.stdout.write(writeNetlist(circuit, `${at.name} (${at.id})`, startOf(network, at)))
  else {
    const { volts, amps } = solve(circuit, startOf(network, at))
    const runs = network.runs.map(({ id }) => [id, amps.get(id)!] as const)
    const answer = { case: at.id, posts: Object.fromEntries(volts), runs: Object.fromEntries(runs) }
    process.stdout.write(`${JSON.stringify(answer, null, 2)}\n`)
  }
}
