import { stages, type JobDocument, type Stage } from './document'

const order = Object.keys(stages) as Stage[]

/**
 * The stage of a job once its work has got somewhere. It only moves on: work that is done again, and a stage that was
 * set by hand, take nothing back.
 */
const stageAfter = (stage: Stage, reached: Stage): Stage =>
  order.indexOf(reached) > order.indexOf(stage) ? reached : stage

/** The job with the stage that its work has reached. */
export function atStage(job: JobDocument, reached: Stage): JobDocument {
  const stage = stageAfter(job.job.stage, reached)
  return stage === job.job.stage ? job : { ...job, job: { ...job.job, stage } }
}
