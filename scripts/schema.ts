// npm run schema: writes the published JSON Schema of the job file.
import { writeFile } from 'node:fs/promises'
import { jobJsonSchema } from '../core/formats/json-schema'

await writeFile(new URL('../docs/job.schema.json', import.meta.url), `${JSON.stringify(jobJsonSchema, null, 2)}\n`)
