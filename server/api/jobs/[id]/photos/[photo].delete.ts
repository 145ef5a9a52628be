import { removePhoto } from '../../../../db/photos'
import { workshopDatabase } from '../../../../utils/database'
import { jobId, noSuchPhoto, photoId, route } from '../../../../utils/reply'

export default route(async (event) => {
  const [job, id] = [jobId(event), photoId(event)]
  const { sql, workshop } = await workshopDatabase()
  if (!await removePhoto(sql, workshop, job, id)) throw noSuchPhoto()
  return { removed: id }
})
