import { jobOfView } from '../utils/job-path'

/** Starts what checks a job while the page that shows it is still on its way. */
export default defineNuxtPlugin({
  name: 'engine',
  // Before the router, which waits for the page.
  order: -40,
  setup() {
    if (!jobOfView(window.location.pathname)) return
    void import('../engine/client').then(({ theEngine }) => theEngine().forget('job'))
  },
})
