import { isDeepStrictEqual } from 'node:util'
import type { Answers } from '../../core/form/answers'
import type { EventDetails, EventKind } from '../../shared/api/storedEvents'
import type { Database } from '../store/database'
import { responseEvents } from '../store/schema'

/** Something that happened to a response. */
export interface ResponseEvent {
  responseId: string
  kind: EventKind
  turn: string
  who: string
  details: EventDetails
  at?: Date
}

/** Writes down what happened to a response. */
export async function keepEvent(db: Database, event: ResponseEvent): Promise<void> {
  await db.insert(responseEvents).values(event)
}

/** What stood in those answers that are others now: by code, null where there was nothing. */
export function answersBefore(before: Answers, after: Answers): Answers {
  const codes = new Set([...Object.keys(before), ...Object.keys(after)])
  const changed = [...codes].filter(code => !isDeepStrictEqual(before[code] ?? null, after[code] ?? null))
  return Object.fromEntries(changed.map(code => [code, before[code] ?? null]))
}
