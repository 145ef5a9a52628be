import { repositories } from '../../utils/database'
import { route } from '../../utils/reply'

export default route('apprentice', async (event) => {
  const { shop } = await repositories(event)
  return shop.read()
})
