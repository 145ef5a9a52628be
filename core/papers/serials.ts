import { listParts, partName, type JobDocument } from '#core/job/document'
import { listSection, type Section } from './blocks'

/**
 * Serial numbers of the parts of a job, in walking order. Nothing where none was noted.
 * @param job as it was fitted
 */
export const serialsSection = (job: JobDocument): Section[] =>
  listSection(
    'Serial numbers',
    listParts(job).flatMap(({ part, path }) =>
      part.serial ? [`${partName(job, path)}: ${part.serial}`] : [],
    ),
  )
