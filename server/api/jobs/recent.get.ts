import Joi from 'joi'
import { recentJobs } from '../../answers/jobs'
import { repositories } from '../../utils/database'
import { json, route } from '../../utils/route'

const mostPinned = 100
const idText = '[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}'

const query = Joi.object<{ also: string }>({
  also: Joi.string()
    .allow('')
    .pattern(new RegExp(`^${idText}(,${idText}){0,${mostPinned - 1}}$`, 'i'), 'ids')
    .default('')
    .description('Ids of further jobs, with commas between them.'),
})

/** Jobs that a device should keep for work without signal, with their versions. */
export default route(
  { needs: 'apprentice', query, answer: json(recentJobs) },
  async (event, { query: { also } }) =>
    (await repositories(event)).jobList.recent(also.split(',').filter(Boolean)),
)
