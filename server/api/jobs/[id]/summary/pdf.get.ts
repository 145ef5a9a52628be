import { paperOfJob } from '../../../../utils/paper'

/** The summary of a job as it is saved, as a PDF. */
export default paperOfJob('summary')
