import type { JobDocument } from './document'

/** Whether anything of a job's wiring was decided: an answer is chosen, or a run or a fitting is set by hand. */
export const isWired = ({ specified, runs, fittings, branches }: JobDocument): boolean =>
  specified !== undefined || [runs, fittings, branches].some((set) => Object.keys(set).length > 0)
