import type { Refusal } from '#shared/api/refusal'

/** What is done at a door (signing in, setting up, choosing a password): busy until the next page stands there, and what was refused. */
export function useEntering() {
  const { fetch: refresh, loggedIn } = useUserSession()
  const refusal = ref<Refusal | string | null>(null)
  const busy = ref(false)
  /** Asks the server to let somebody in, then goes on; where it refuses, its refusal is given back too. */
  async function enter(ask: () => Promise<unknown>, to: string): Promise<Refusal | null> {
    busy.value = true
    refusal.value = null
    try {
      await ask()
      await refresh()
      // This page stays, and busy, until the next one has what it shows.
      if (loggedIn.value) {
        await navigateTo(to)
        return null
      }
      refusal.value = 'You are signed in, but the session could not be read. Try again.'
    } catch (error) {
      const refused = refusalOf(error)
      refusal.value = refused
      busy.value = false
      return refused
    }
    busy.value = false
    return null
  }
  return { refusal, busy, enter }
}
