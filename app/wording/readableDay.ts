import { readableDate } from '#core/expressions/dates'

/** The day of an instant (ISO 8601) as it is read. */
export const readableDay = (instant: string): string => readableDate(instant.slice(0, 10))

/** The time of day of an instant (ISO 8601) as it is here: `14:05`, with seconds where these tell things apart. */
export const readableTime = (instant: string, isExact = false): string =>
  new Date(instant).toLocaleTimeString('en-GB', {
    hour: '2-digit',
    minute: '2-digit',
    second: isExact ? '2-digit' : undefined,
  })
