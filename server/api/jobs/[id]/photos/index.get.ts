import { repositories } from '../../../../utils/database'
import { jobId, route } from '../../../../utils/reply'

export default route('apprentice', async (event) => {
  const id = jobId(event)
  const { photos } = await repositories(event)
  return photos.list(id)
})
