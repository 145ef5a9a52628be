import { getQuery } from 'h3'
import Joi from 'joi'
import { repositories } from '../../utils/database'
import { route, validated } from '../../utils/reply'
import { pageEnd, shelfKindOf } from '../../utils/shelf'

const query = Joi.object<{ kind: string; words?: string; after?: string }>({
  kind: Joi.string().max(40).required(),
  words: Joi.string()
    .allow('')
    .max(200)
    .pattern(/\u0000/, { invert: true }),
  after: pageEnd,
})

/** Parts of a kind, a page at a time, and how many there are of each. */
export default route(async (event) => {
  const { kind, words, after } = validated(query, getQuery(event))
  const { shelf } = await repositories()
  const [page, counts] = await Promise.all([shelf.list(shelfKindOf(kind), words, after), shelf.count()])
  return { ...page, counts: Object.fromEntries(counts.map((c) => [c.kind, c.count])) }
})
