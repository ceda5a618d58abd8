/** Pages of admins: who is none goes home. */
export default defineNuxtRouteMiddleware(() => {
  const { user } = useUserSession()
  if (user.value?.role !== 'admin') return navigateTo('/')
})
