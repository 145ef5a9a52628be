import Joi from 'joi'
import type { TableProblem } from '#core/formats/table'
import { whoSchema } from './who'

/** Purpose of a request to read a table: only to list its content, or to import the good rows too. */
export const tableQuery = Joi.object<{ who: string; take: 'none' | 'good' }>({
  who: whoSchema,
  take: Joi.valid('none', 'good').default('none'),
})

/** Problems that one answer lists. */
const mostShown = 1000

/** The findings in a table. @param good rows that can be imported @param count rows in it */
export const tableReport = (good: number, count: number, problems: readonly TableProblem[]) => ({
  count,
  good,
  problems: problems.slice(0, mostShown),
  bad: new Set(problems.map(({ line }) => line)).size,
})
