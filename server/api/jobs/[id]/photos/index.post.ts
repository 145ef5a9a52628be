import Joi from 'joi'
import { partKindIds } from '#core/job/fields'
import { pictureTypes, sentPicture } from '../../../../pictures/sent'
import { repositories } from '../../../../utils/database'
import { plainText } from '../../../../utils/plain-text'
import { Refusal } from '../../../../utils/refusal'
import { jobId, noSuchJob } from '../../../../utils/reply'
import { whoSchema } from '../../../../utils/who'
import { photoRow } from '../../../../answers/jobs'
import { made, route } from '../../../../utils/route'

const query = Joi.object<{ who: string; station: string; name: string; id?: string; at?: string }>({
  who: whoSchema,
  station: Joi.alternatives(Joi.valid(...partKindIds), Joi.string().pattern(/^step-[a-z0-9-]{1,60}$/))
    .required()
    .description('Where it was taken: a station of the survey, or a step of the work.'),
  name: plainText(120).default('Photo'),
  id: Joi.string()
    .guid()
    .description('The id that the device gave it. Sent again with it, the photo is added once.'),
  at: Joi.string().isoDate().description('When it was taken.'),
})

/** A photo of a station: the bytes of a picture, stored without its metadata. */
export default route(
  {
    needs: 'apprentice',
    query,
    takes: pictureTypes,
    answer: made(photoRow),
    refuses: [404],
  },
  async (event, { query: { who, station, name, id: photo, at } }) => {
    const id = jobId(event)
    const { jobs, photos } = await repositories(event, who)
    if (!(await jobs.read(id))) throw noSuchJob()
    const picture = await sentPicture(event)
    const added = await photos.add(id, { ...picture, station, name, id: photo, takenAt: at })
    if ('refused' in added) throw new Refusal(422, added.refused)
    return added
  },
)
