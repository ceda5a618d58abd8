/** A day of the server's calendar as ISO date: today, unless another moment is given. */
export function isoToday(now = new Date()): string {
  const local = new Date(now.getTime() - now.getTimezoneOffset() * 60_000)
  return local.toISOString().slice(0, 10)
}
