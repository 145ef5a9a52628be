/** Nothing is shown before it is known in which units. */
export default defineNuxtPlugin(async () => {
  await useShop().load()
})
