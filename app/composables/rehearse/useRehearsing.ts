import { onKeyStroke } from '@vueuse/core'
import type { Frame } from '#core/fill/fill'
import type { Address } from '#core/form/walk'

/** What is asked about while rehearsing, and starting afresh (Alt N). */
export function useRehearsing() {
  const rehearsal = useRehearsal()
  const { say } = useSaid()
  /** The entry asked about, or the response as it is now: the panel follows the answers. */
  const asked = shallowRef<{ address: Address; frame: Frame | null } | null>(null)
  const askWhy = (address: Address, frame: Frame | null = null) => (asked.value = { address, frame })
  function startAfresh() {
    rehearsal.startAfresh()
    asked.value = null
    say('Started afresh.')
  }
  onKeyStroke(
    event => event.altKey && !event.ctrlKey && event.key.toLowerCase() === 'n',
    event => {
      event.preventDefault()
      startAfresh()
    },
  )
  return { asked, askWhy, startAfresh }
}
