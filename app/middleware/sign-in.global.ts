/** Pages that need no sign-in. */
const openPages = ['/sign-in', '/join', '/trust', '/help', '/customer']

export default defineNuxtRouteMiddleware((to) => {
  if (useAccount().mustSignIn && !openPages.includes(to.path))
    return navigateTo({ path: '/sign-in', query: { to: to.fullPath } })
})
