import { repositories } from '../../../../utils/database'
import { jobId, route } from '../../../../utils/reply'

export default route(async (event) => {
  const id = jobId(event)
  const { photos } = await repositories()
  return photos.list(id)
})
