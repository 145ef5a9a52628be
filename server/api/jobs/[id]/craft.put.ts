import Joi from 'joi'
import { movedJob } from '../../../answers/craft'
import { repositories } from '../../../utils/database'
import { Refusal } from '../../../utils/refusal'
import { jobId } from '../../../utils/reply'
import { json, jsonBody, route } from '../../../utils/route'
import { whoSchema } from '../../../utils/who'

const body = Joi.object<{ who: string; craft: string }>({
  who: whoSchema,
  craft: Joi.string().guid().required(),
})

/** Moves a job to another craft. A craft that is left with nothing is removed. */
export default route(
  { needs: 'installer', body: jsonBody(body), answer: json(movedJob), refuses: [404] },
  async (event, { body: { who, craft } }) => {
    const { crafts } = await repositories(event, who)
    if (!(await crafts.moveJob(jobId(event), craft))) throw new Refusal(404, 'There is no such job or craft')
    return { craft }
  },
)
