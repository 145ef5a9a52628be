// npm run --silent network -- FILE.json --case NAME: voltages and currents of the wiring of a job in a case, as JSON.
// npm run --silent netlist -- FILE.json --case NAME: the same case as a netlist. --case list: the names of the cases.
import { writeNetlist } from '#core/formats/netlist'
import { caseOf, casesOf, type Case } from '#core/wiring/cases'
import type { Circuit } from '#core/circuit/circuit'
import { circuitOf, startOf } from '#core/wiring/circuits'
import { networkOf } from '#core/wiring/of-job'
import { solveCircuit } from '#core/circuit/solution'
import { circuitIn } from '#core/commissioning/circuit'
import { Proof } from '#core/commissioning/predict'
import { provedCase } from '#core/commissioning/states'
import { fail, jobFromFile } from './lib/job-argument'

const [what, file, ...rest] = process.argv.slice(2)
const given = rest[0] === '--case' ? rest[1] : rest[0]?.startsWith('--case=') ? rest[0].slice(7) : undefined
const use = `npm run --silent ${what} -- FILE.json --case NAME`
if (!file || file.startsWith('--')) fail(`Name a job file: ${use}`)
if (!given) fail(`Name a case: ${use}; --case list prints their names`)
const job = await jobFromFile(file)
const network = networkOf(job)
/** A state in which the job is proved: calculated only where one is asked for. */
const asProved = (name: string): { readonly at: Case; readonly circuit: Circuit } | null => {
  const proof = new Proof(job)
  const state = proof.states.find((one) => provedCase(one) === name)
  return state
    ? { at: { ...state.at, id: name, name: state.name }, circuit: circuitIn(proof.rig, state) }
    : null
}
const asPlanned = (name: string): { readonly at: Case; readonly circuit: Circuit } | null => {
  const at = caseOf(network, name)
  return at && { at, circuit: circuitOf(network, at) }
}
if (given === 'list')
  process.stdout.write(
    [...casesOf(network).map(({ id }) => id), ...new Proof(job).states.map(provedCase)]
      .map((id) => `${id}\n`)
      .join(''),
  )
else {
  const { at, circuit } =
    asPlanned(given) ?? asProved(given) ?? fail(`${given}: no such case; --case list prints their names`)
  if (what === 'netlist')
    process.stdout.write(writeNetlist(circuit, `${at.name} (${at.id})`, startOf(network, at)))
  else {
    const { volts, amps } = solveCircuit(circuit, startOf(network, at))
    const runs = network.runs.map(({ id }) => [id, amps.get(id)!] as const)
    const answer = { case: at.id, posts: Object.fromEntries(volts), runs: Object.fromEntries(runs) }
    process.stdout.write(`${JSON.stringify(answer, null, 2)}\n`)
  }
}
