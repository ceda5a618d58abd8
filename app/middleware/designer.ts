/** Designers' pages ask for a session; whoever has none signs in first and comes back. */
export default defineNuxtRouteMiddleware(to => {
  const { loggedIn } = useUserSession()
  if (!loggedIn.value) return navigateTo({ path: '/sign-in', query: { to: to.fullPath } })
})
