import { listPhotos } from '../../../../db/photos'
import { workshopDatabase } from '../../../../utils/database'
import { jobId, route } from '../../../../utils/reply'

export default route(async (event) => {
  const id = jobId(event)
  const { sql, workshop } = await workshopDatabase()
  return listPhotos(sql, workshop, id)
})
