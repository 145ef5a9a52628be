// npm run --silent assess -- FILE.json: the assessment of a job file as JSON, from the core alone.
import { readFile, stat } from 'node:fs/promises'
import { assess } from '../core/assessment/assess'
import { decodeText } from '../core/formats/bytes'
import { largestJobFileBytes, readJobFile } from '../core/formats/job-file'

function fail(message: string): never {
  process.stderr.write(`${message}\n`)
  process.exit(2)
}

const file = process.argv[2] ?? fail('Name a job file: npm run --silent assess -- FILE.json')
const info = await stat(file).catch(() => fail(`${file}: no such file`))
if (!info.isFile()) fail(`${file}: not a file`)
if (info.size > largestJobFileBytes) fail(`${file}: larger than a job file can be (${largestJobFileBytes / 1024 / 1024} MB)`)
const decoded = decodeText(await readFile(file))
if (!decoded.ok) fail(`${file}: ${decoded.error}`)
const read = readJobFile(decoded.text)
if (!read.ok) fail(read.problems.map(({ path, line, message }) => `${file}${line ? `, line ${line}` : ''}: ${path ? `${path} ` : ''}${message}`).join('\n'))
process.stdout.write(`${JSON.stringify(assess(read.job), null, 2)}\n`)
