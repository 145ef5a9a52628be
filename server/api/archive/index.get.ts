import { sendStream, setResponseHeaders } from 'h3'
import { writeArchive } from '../../archive/write'
import { longTransaction, temporaryStream } from '../../utils/archive'
import { repositories } from '../../utils/database'
import { media, route } from '../../utils/route'

/** The whole workshop as a ZIP file of open formats, without secrets. */
export default route({ needs: 'owner', answer: media('application/zip') }, async (event) => {
  const { workshop } = await repositories(event)
  const { bytes, stream } = await temporaryStream((file) =>
    longTransaction(workshop, 'read only', (tx) => writeArchive(tx, workshop, file)),
  )
  setResponseHeaders(event, {
    'content-type': 'application/zip',
    'content-length': bytes,
    'content-disposition': `attachment; filename="workshop-${new Date().toISOString().slice(0, 10)}.zip"`,
  })
  return sendStream(event, stream)
})
