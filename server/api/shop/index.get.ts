import { repositories } from '../../utils/database'
import { route } from '../../utils/reply'

export default route(async () => {
  const { shop } = await repositories()
  return shop.read()
})
