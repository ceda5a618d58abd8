import { z } from 'zod'
import { FoundRow } from '#shared/api/answering'
import { AnyAnswers } from '#shared/api/stored'

/** What is kept on the respondent's device until the response is sent. */
const KeptResponse = z.object({
  release: z.number(),
  begunOn: z.string(),
  key: z.string(),
  answers: AnyAnswers,
  place: z.object({ section: z.number(), only: z.number().nullable() }),
  rows: z.record(z.string(), z.array(FoundRow)).default({}),
})
export type KeptResponse = z.infer<typeof KeptResponse>

/** The answers of a link, kept on this device through reloads and lost connections. */
export function useKeptAnswers(token: string) {
  const storageKey = `tobbin-answers-${token}`
  /** Whether the device keeps what is typed; the page says so only then. */
  const isKept = ref(false)
  const forget = () => localStorage.removeItem(storageKey)
  /** What was kept last; null when there is nothing, or nothing that can be read. */
  function recall(): KeptResponse | null {
    const found = KeptResponse.safeParse(readJson(localStorage.getItem(storageKey)))
    if (!found.success) {
      forget() // unreadable: the answers can't be brought back, so begin with none
      return null
    }
    isKept.value = true
    return found.data
  }
  function keep(response: KeptResponse) {
    try {
      localStorage.setItem(storageKey, JSON.stringify(response))
      isKept.value = true
    } catch {
      isKept.value = false // the device keeps nothing (private window, full store); the page says so by not claiming it
    }
  }
  return { isKept, recall, keep, forget }
}
