// npm run schema: writes the published descriptions from the catalogues: the JSON Schema of the job file, the
// tables of the shelf, the checks, the glossary, the API, the picture of the layers.
import { writeFile } from 'node:fs/promises'
import { jobJsonSchema } from '#core/formats/json-schema'
import { describeChecks } from '#core/formats/describe-checks'
import { describeGlossary } from '#core/words/glossary'
import { describeTables } from '#core/formats/describe-tables'
import { examples } from './lib/examples'
import { describeApi } from './lib/openapi'
import { layersPicture } from './lib/layers-picture'

const docs = new URL('../docs/', import.meta.url)
await writeFile(new URL('job.schema.json', docs), `${JSON.stringify(jobJsonSchema, null, 2)}\n`)
await writeFile(new URL('openapi.json', docs), `${JSON.stringify(await describeApi(), null, 2)}\n`)
await writeFile(new URL('tables.md', docs), describeTables())
await writeFile(new URL('layers.svg', docs), layersPicture())
await writeFile(new URL('glossary.md', docs), describeGlossary())
await writeFile(new URL('assessment.md', docs), describeChecks(examples()))
