import { jobJsonSchema } from '#core/formats/json-schema'
import { route } from '../../utils/reply'

export default route('apprentice', async () => jobJsonSchema)
