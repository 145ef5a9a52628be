import { setResponseHeader } from 'h3'
import { metricsText, metricsType } from '../running/metrics'
import { repositories } from '../utils/database'
import { route } from '../utils/reply'

/** What is counted in this server, for a monitoring program with a key of an owner. */
export default route('owner', async (event) => {
  const { shop } = await repositories(event)
  const text = await metricsText(await shop.waiting())
  setResponseHeader(event, 'content-type', metricsType)
  return text
})
