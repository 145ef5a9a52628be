import { getRouterParam } from 'h3'
import Joi from 'joi'
import { isPlainKind } from '#core/papers/kinds'
import { labelSheetIds, type LabelSheetId } from '#core/papers/label-sheets'
import { draftOfJob } from '../../../../../utils/paper'
import { Refusal } from '../../../../../utils/refusal'
import { nothingSpecified, sendPdf } from '../../../../../utils/reply'
import { media, route } from '../../../../../utils/route'

const query = Joi.object<{ labelSheet?: LabelSheetId }>({
  labelSheet: Joi.valid(...labelSheetIds).description('Only for labels.'),
})

/** The draft of a paper of a job as it is saved, as a PDF. It has no number. */
export default route(
  { needs: 'apprentice', query, answer: media('application/pdf'), refuses: [404] },
  async (event, { query: { labelSheet } }) => {
    const kind = getRouterParam(event, 'kind') ?? ''
    if (!isPlainKind(kind)) throw new Refusal(404, 'There is no draft of such a paper')
    const draft = await draftOfJob(event, kind, labelSheet)
    if (draft === 'nothing-specified') throw nothingSpecified()
    return sendPdf(event, draft.name, draft.data)
  },
)
