// npm run --silent expect -- FILE.json: every test of a job with its expected reading and tolerance, as JSON.
// npm run --silent diagnose -- FILE.json --readings R.csv: the causes of readings (columns test,value), as JSON.
import { readFile } from 'node:fs/promises'
import { decodeText } from '#core/formats/bytes'
import { readProofCsv } from '#core/formats/proof-csv'
import { Diagnosis } from '#core/diagnosis/diagnosis'
import { expectedRows, rankingRows } from '#core/diagnosis/rows'
import { fail, jobFromFile } from './lib/job-argument'

const [what, file, ...rest] = process.argv.slice(2)
const print = (answer: unknown): boolean => process.stdout.write(`${JSON.stringify(answer, null, 2)}\n`)

if (what === 'expect') {
  if (!file) fail('Name a job file: npm run --silent expect -- FILE.json')
  print(expectedRows(new Diagnosis(await jobFromFile(file))))
} else {
  const use = 'npm run --silent diagnose -- FILE.json --readings R.csv'
  const readings = rest[0]?.startsWith('--readings=')
    ? rest[0].slice(11)
    : rest[0] === '--readings'
      ? rest[1]
      : null
  if (!file || !readings) fail(`Name a job file and its readings: ${use}`)
  const diagnosis = new Diagnosis(await jobFromFile(file))
  const bytes = await readFile(readings).catch(() => fail(`${readings}: no such file`))
  const text = decodeText(bytes)
  if (!text.ok) fail(`${readings}: ${text.error}`)
  const read = readProofCsv(text.text, diagnosis.proof.tests)
  if (read.problems.length > 0)
    fail(
      read.problems
        .map(({ line, column, reason }) => `${readings}, line ${line}, ${column}: ${reason}`)
        .join('\n'),
    )
  print(rankingRows(diagnosis, diagnosis.given(read.readings)))
}
