import { dayNumber, isoFromDay } from '../expressions/dates'
import type { Due, Turn } from '../form/turns'

/** Day 0, 1970-01-01, was a Thursday: 0 is Monday. */
const weekday = (day: number): number => (((day + 3) % 7) + 7) % 7
const isWorkingDay = (day: number): boolean => weekday(day) < 5

/**
 * The day on which something is due that was opened on a day.
 * @param opened ISO date
 * @returns ISO date; the day itself for 0 days. Of working days, from Monday to Friday, the last one counts whole.
 * @throws RangeError when `opened` is no date
 */
export function dueDay(opened: string, { days, working = undefined }: Due): string {
  const start = dayNumber(opened)
  if (start === null) throw new RangeError(`“${opened}” is no date.`)
  if (!working) return isoFromDay(start + days)
  let day = start
  for (let left = days; left > 0;) {
    day += 1
    if (isWorkingDay(day)) left -= 1
  }
  return isoFromDay(day)
}

/** What is posted about a turn that waits, and on which day (ISO date). */
export interface Notice {
  on: string
  kind: 'reminder' | 'escalation'
}

/** Everything that is to be posted about a turn, in order; nothing for a turn without a due day. */
export function listNotices({ reminders = [], escalation }: Turn, due: string | null): Notice[] {
  const day = due === null ? null : dayNumber(due)
  if (day === null) return []
  const reminded = reminders.map((days): Notice => ({ on: isoFromDay(day + days), kind: 'reminder' }))
  const escalated: Notice[] = escalation
    ? [{ on: isoFromDay(day + escalation.after), kind: 'escalation' }]
    : []
  return [...reminded, ...escalated].sort((a, b) => a.on.localeCompare(b.on))
}
