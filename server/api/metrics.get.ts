import { setResponseHeader } from 'h3'
import { metricsText, metricsType } from '../running/metrics'
import { repositories } from '../utils/database'
import { media, route } from '../utils/route'

/** Counters of this server, for a monitoring program with a key of an owner. */
export default route({ needs: 'owner', answer: media('text/plain') }, async (event) => {
  const { shop } = await repositories(event)
  const text = await metricsText(await shop.waiting())
  setResponseHeader(event, 'content-type', metricsType)
  return text
})
