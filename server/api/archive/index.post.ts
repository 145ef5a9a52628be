import { takenArchive } from '../../answers/craft'
import { BadArchive, readArchive } from '../../archive/read'
import { longTransaction, receive, withTemporaryFile } from '../../utils/archive'
import { judgingQueue, repositories } from '../../utils/database'
import { typeOf } from '../../utils/body'
import { Refusal } from '../../utils/refusal'
import { json, route } from '../../utils/route'

const largestGb = 8

/** Imports an archive into an empty workshop. A damaged or unsuitable archive is refused, and nothing changes. */
export default route(
  { needs: 'owner', takes: ['application/zip'], answer: json(takenArchive) },
  async (event) => {
    if (typeOf(event) !== 'application/zip') throw new Refusal(415, 'Send application/zip')
    const { workshop } = await repositories(event)
    try {
      return await withTemporaryFile(async (file) => {
        await receive(event.node.req, file, largestGb)
        const { madeAt, files } = await longTransaction(workshop, 'read write', (tx) =>
          readArchive(tx, workshop, file),
        )
        judgingQueue().saved()
        return { madeAt, files: files.length }
      })
    } catch (cause) {
      if (cause instanceof BadArchive) throw new Refusal(422, `${cause.message} Nothing was changed.`)
      throw cause
    }
  },
)
