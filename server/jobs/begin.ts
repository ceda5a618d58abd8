import type { Store } from '../store/database'
import { describeForLog } from '../store/storeErrors'
import { startJobs, type Job, type Jobs } from './jobs'

/** Milliseconds until it is tried again, where the store could not be reached. */
const AGAIN = 30_000

/** Begins background work once the store is open, again and again until it can be begun. @returns how it is ended */
export function beginJobs(opening: Promise<Store>, jobs: readonly Job[]): () => Promise<void> {
  let begun: Jobs | null = null
  let again: NodeJS.Timeout | undefined
  const begin = async (store: Store) => {
    try {
      begun = await startJobs(store, jobs)
    } catch (error) {
      console.error(`The background work did not begin; it is tried again. ${describeForLog(error)}`)
      again = setTimeout(() => void begin(store), AGAIN)
    }
  }
  // A store that can't be opened ends the process: that is said where it is opened.
  const beginning = opening.then(begin, () => undefined)
  return async () => {
    clearTimeout(again)
    await beginning
    await begun?.stop()
  }
}
