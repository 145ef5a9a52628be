import { readShop } from '../../db/shop'
import { workshopDatabase } from '../../utils/database'
import { route } from '../../utils/reply'

export default route(async () => {
  const { sql, workshop } = await workshopDatabase()
  return readShop(sql, workshop)
})
