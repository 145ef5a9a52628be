import { readFile, stat } from 'node:fs/promises'
import { decodeText } from '#core/formats/bytes'
import { largestJobFileBytes, readJobFile } from '#core/formats/job-file'
import type { JobDocument } from '#core/job/document'

/** Ends a command with words on standard error. */
export function fail(message: string): never {
  process.stderr.write(`${message}\n`)
  process.exit(2)
}

/** The job of the file a command was given, or its end with words. */
export async function jobFromFile(file: string): Promise<JobDocument> {
  const info = await stat(file).catch(() => fail(`${file}: no such file`))
  if (!info.isFile()) fail(`${file}: not a file`)
  if (info.size > largestJobFileBytes)
    fail(`${file}: larger than a job file can be (${largestJobFileBytes / 1024 / 1024} MB)`)
  const decoded = decodeText(await readFile(file))
  if (!decoded.ok) fail(`${file}: ${decoded.error}`)
  const read = readJobFile(decoded.text)
  if (!read.ok)
    fail(
      read.problems
        .map(
          ({ path, line, message }) =>
            `${file}${line ? `, line ${line}` : ''}: ${path ? `${path} ` : ''}${message}`,
        )
        .join('\n'),
    )
  return read.job
}
