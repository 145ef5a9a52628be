// npm run schema: writes what is published of the formats, made from the catalogues: the JSON Schema of the job file and the tables of the shelf.
import { writeFile } from 'node:fs/promises'
import { jobJsonSchema } from '../core/formats/json-schema'
import { describeTables } from '../core/formats/describe-tables'

const docs = new URL('../docs/', import.meta.url)
await writeFile(new URL('job.schema.json', docs), `${JSON.stringify(jobJsonSchema, null, 2)}\n`)
await writeFile(new URL('tables.md', docs), describeTables())
