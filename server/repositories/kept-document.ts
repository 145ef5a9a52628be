import type { JobDocument } from '#core/job/document'
import { upToDate } from '#core/job/migrations/index'

/** A document as it reads now: it may be kept in an older version of the format. */
export const documentOf = (kept: unknown): JobDocument =>
  upToDate(kept as Parameters<typeof upToDate>[0]) as unknown as JobDocument
