import { paperOfJob } from '../../../../utils/paper'

/** The plan of the wiring of a job as it is saved, as a PDF. */
export default paperOfJob('wiring')
