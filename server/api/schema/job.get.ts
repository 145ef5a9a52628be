import { jobJsonSchema } from '#core/formats/json-schema'
import { anything } from '../../answers/shape'
import { json, route } from '../../utils/route'

/** The format of a job file, as a JSON Schema. */
export default route(
  { needs: 'apprentice', answer: json(anything('A JSON Schema.')) },
  async () => jobJsonSchema,
)
