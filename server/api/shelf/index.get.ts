import { getQuery } from 'h3'
import Joi from 'joi'
import { repositories } from '../../utils/database'
import { route, validated } from '../../utils/reply'
import { shelfKindOf } from '../../utils/shelf'

const query = Joi.object<{ kind: string; words?: string }>({
  kind: Joi.string().max(40).required(),
  words: Joi.string()
    .allow('')
    .max(200)
    .pattern(/\u0000/, { invert: true }),
})

/** Parts of a kind, and how many there are of each. */
export default route(async (event) => {
  const { kind, words } = validated(query, getQuery(event))
  const { shelf } = await repositories()
  const [parts, counts] = await Promise.all([shelf.list(shelfKindOf(kind), words), shelf.count()])
  return { parts, counts: Object.fromEntries(counts.map((c) => [c.kind, c.count])) }
})
