import type { FactTable } from '../../../core/summary/factTable'
import type { Database } from '../../store/database'
import { describeForLog } from '../../store/storeErrors'
import { describeMaking, prepareStoring, storeFacts, type FactSet } from './storedFacts'

/** How the storing of a form’s facts by this process stands: how many responses changed since, and when it began last. */
export interface Storing {
  changed: number
  begunAt: number
  isRunning: boolean
}

/** Fewer responses are read anew in no time. */
const LEAST = 1_000
/** The share of responses that may have changed before they are stored anew: so much is read after a start. */
const SHARE = 0.02
/** Milliseconds between one storing and the next. */
const PAUSE = 300_000

/**
 * Stores facts for the next start where that is worth it, beside whatever else goes on.
 * @param set how the stored ones stood before the facts were read
 */
export async function storeWhenDue(
  db: Database,
  formId: string,
  set: FactSet | null,
  facts: { table: FactTable; versions: string; upTo: bigint; storing: Storing },
): Promise<void> {
  const { table, versions, upTo, storing } = facts
  if (table.size < LEAST || storing.isRunning || Date.now() - storing.begunAt < PAUSE) return
  if (set === null) return prepareStoring(db, formId)
  const madeFrom = await describeMaking(db, versions, table.measures)
  if (madeFrom === null) return
  const stands = set.setId !== null && set.madeFrom === madeFrom
  if (stands && storing.changed < table.size * SHARE) return
  Object.assign(storing, { changed: 0, begunAt: Date.now(), isRunning: true })
  void storeFacts(db, set, { table, madeFrom, upTo })
    .catch((error: unknown) => {
      console.error(`What figures are made of was not stored. ${describeForLog(error)}`)
    })
    .finally(() => {
      storing.isRunning = false
    })
}
