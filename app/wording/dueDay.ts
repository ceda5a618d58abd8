/** By when something is due, as it is read; empty where there is no such day. */
export function sayDue(day: string | null, isLate: boolean): string {
  if (day === null) return ''
  return isLate ? `${readableDay(day)}, late` : readableDay(day)
}
