/** Designers' pages ask for a session; whoever has none signs in first and comes back. */
export default defineNuxtRouteMiddleware(async to => {
  const { loggedIn, ready, fetch } = useUserSession()
  if (!ready.value) await fetch()
  if (!loggedIn.value) return navigateTo({ path: '/sign-in', query: { to: to.fullPath } })
})
