import { adoptEarlierDrafts } from '../device/drafts'
import { enterWindow } from '../device/windows'
import { jobOfView } from '../utils/job-path'

/** Nothing is shown before it is known who is signed in, and in which units the shop writes. */
export default defineNuxtPlugin(async () => {
  const account = useAccount()
  // Side by side: somebody who is not signed in gets no data of the shop.
  await Promise.all([enterWindow(), account.load(), useShop().load()])
  adoptEarlierDrafts(account.owner)
  if (account.mustSignIn) return
  useSync().start()
  useTogether().start()
  const job = jobOfView(useRoute().path)
  if (!job) return
  useJob().openAhead(job)
  void import('../stores/judging').then(({ useJudging: judge }) => judge())
})
