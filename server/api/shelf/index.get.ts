import Joi from 'joi'
import { shelfSorts, type ShelfSort } from '../../repositories/shelf'
import { repositories } from '../../utils/database'
import { pageEnd, shelfKindOf } from '../../utils/shelf'
import { shelfPage } from '../../answers/shelf'
import { json, route } from '../../utils/route'

const query = Joi.object<{ kind: string; words?: string; sort: ShelfSort; after?: string }>({
  kind: Joi.string().max(40).required(),
  words: Joi.string()
    .allow('')
    .max(200)
    .pattern(/\u0000/, { invert: true }),
  sort: Joi.string()
    .valid(...shelfSorts)
    .default('name'),
  // A page by price goes on behind a number.
  after: Joi.when('sort', {
    is: 'price',
    then: pageEnd.pattern(/^\["\d{1,13}(\.\d{1,6})?",/),
    otherwise: pageEnd,
  }),
})

/** Parts of a kind, a page at a time, and how many there are of each. */
export default route(
  { needs: 'apprentice', query, answer: json(shelfPage), refuses: [404] },
  async (event, { query: { kind, words, sort, after } }) => {
    const { shelf } = await repositories(event)
    const [page, counts] = await Promise.all([
      shelf.list(shelfKindOf(kind), words, after, sort),
      shelf.count(),
    ])
    return { ...page, counts: Object.fromEntries(counts.map((c) => [c.kind, c.count])) }
  },
)
