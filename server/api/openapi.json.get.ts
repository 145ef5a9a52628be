import description from '../../docs/openapi.json'
import { anything } from '../answers/shape'
import { json, route } from '../utils/route'

/** This server's routes, as an OpenAPI 3.1 description. */
export default route({ needs: 'apprentice', answer: json(anything('An OpenAPI 3.1 document.')) }, () =>
  Promise.resolve(description),
)
