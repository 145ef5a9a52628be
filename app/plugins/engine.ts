import { jobOfView } from '../utils/job-path'

/** Starts the worker that checks a job while the page is still loading. */
export default defineNuxtPlugin({
  name: 'engine',
  // Before the router, which waits for the page.
  order: -40,
  setup() {
    if (!jobOfView(window.location.pathname)) return
    void import('../engine/client').then(({ theEngine }) => theEngine().forget('job'))
  },
})
