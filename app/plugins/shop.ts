import { adoptEarlierDrafts } from '../device/drafts'
import { enterWindow } from '../device/windows'

/** Nothing is shown before it is known who is signed in, and in which units the shop writes. */
export default defineNuxtPlugin(async () => {
  const account = useAccount()
  await Promise.all([enterWindow(), account.load()])
  adoptEarlierDrafts(account.person?.id ?? '')
  if (account.mustSignIn) return
  await useShop().load()
  useSync().start()
  useTogether().start()
})
