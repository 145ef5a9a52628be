import type { Finding } from './result'
import { remedyOf } from '#core/remedies/catalogue'
import { isWorse } from '#core/system/verdict'

export const isBlocking = ({ verdict }: Pick<Finding, 'verdict'>): boolean =>
  isWorse(verdict, 'suits') && verdict !== 'measure-first'

/** Whether the finding can be accepted with a line on the customer’s paper. */
export const isAccepted = ({ verdict, remedies }: Pick<Finding, 'verdict' | 'remedies'>): boolean =>
  verdict === 'suits-once-changed' && remedies[0] !== undefined && remedyOf(remedies[0]).kind === 'paper'
