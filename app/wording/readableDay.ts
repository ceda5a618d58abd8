import { readableDate } from '#core/expressions/dates'

/** The day of an instant (ISO 8601) as it is read. */
export const readableDay = (instant: string): string => readableDate(instant.slice(0, 10))
