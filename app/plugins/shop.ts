/** Nothing is shown before it is known who is signed in, and in which units the shop writes. */
export default defineNuxtPlugin(async () => {
  const account = useAccount()
  await account.load()
  if (!account.mustSignIn) await useShop().load()
})
