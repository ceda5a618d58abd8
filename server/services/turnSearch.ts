import { and, eq, isNotNull, isNull, type SQL } from 'drizzle-orm'
import { responses, turns } from '../store/schema'

/** A text that is looked for as it stands, in a pattern of the store. */
export const asPattern = (text: string): string => `%${text.replaceAll(/[\\%_]/g, '\\$&')}%`

/** That a response has a number that is looked for; nothing where no number is. */
export const hasNumber = (search: string): SQL | undefined =>
  /^\d{1,9}$/.test(search) ? eq(responses.number, Number(search)) : undefined

/** That a turn waits to be taken, of rows of turns with their responses; there may be several of one response. */
export const isOpenTurn = and(isNotNull(responses.turn), isNull(turns.handedOffAt), isNull(turns.givenBackAt))
