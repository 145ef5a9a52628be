import Joi from 'joi'
import { readJson } from '../../../../utils/body'
import { repositories } from '../../../../utils/database'
import { jobId, noSuchJob, Refusal, route, validated } from '../../../../utils/reply'
import { whoSchema } from '../../../../utils/who'

const body = Joi.object<{ version: number; who: string }>({
  version: Joi.number().integer().min(1).max(2_000_000_000).required(),
  who: whoSchema,
})

/**
 * Issues what is specified as a sheet that never changes. The version says which state of the job was looked
 * at.
 */
export default route(async (event) => {
  const id = jobId(event)
  const { version, who } = validated(body, await readJson(event, 64 * 1024))
  const { sheets } = await repositories(who)
  const issued = await sheets.issue(id, version, new Date())
  switch (issued.kind) {
    case 'no-job':
      throw noSuchJob()
    case 'nothing-specified':
      throw new Refusal(422, 'Nothing is specified for this job yet: choose an answer first')
    case 'stale':
      throw new Refusal(409, `${issued.theirs.updatedBy} changed this job in the meantime`, {
        theirs: issued.theirs,
      })
    case 'issued':
      return issued.row
  }
})
