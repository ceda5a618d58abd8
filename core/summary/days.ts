import { dayNumber, isoFromDay } from '../expressions/dates'

/** How days are taken together. */
export type Span = 'day' | 'week' | 'month' | 'year'
/** So many of something are from this day on, as ISO date, up to the next one. */
export interface SpanCount {
  from: string
  count: number
}

const DAYS_AS_THEY_ARE = 45
const DAYS_IN_WEEKS = 200
const DAYS_IN_MONTHS = 1_500

/** How days that lie so far apart are taken together to be looked at. */
export function spanFor(first: number, last: number): Span {
  const days = last - first
  if (days <= DAYS_AS_THEY_ARE) return 'day'
  if (days <= DAYS_IN_WEEKS) return 'week'
  return days <= DAYS_IN_MONTHS ? 'month' : 'year'
}

/** The first day of the span that a day lies in; weeks begin on Monday (ISO 8601). */
export function spanStart(day: number, span: Span): number {
  if (span === 'day') return day
  if (span === 'week') return day - ((((day + MONDAY) % 7) + 7) % 7)
  const iso = isoFromDay(day)
  return dayNumber(span === 'month' ? `${iso.slice(0, 7)}-01` : `${iso.slice(0, 4)}-01-01`) ?? day
}
/** What makes the number of a Monday a multiple of seven. */
const MONDAY = (7 - ((((dayNumber('2026-11-30') ?? 0) % 7) + 7) % 7)) % 7

/** The first day of the span after one. */
export function nextSpan(start: number, span: Span): number {
  if (span === 'day') return start + 1
  if (span === 'week') return start + 7
  return spanStart(start + (span === 'month' ? 31 : 366), span)
}

/** Days counted by the spans that they lie in, those between without any too. */
export function countDays(days: readonly number[] | Float64Array): { span: Span; spans: SpanCount[] } {
  let [first, last] = [Infinity, -Infinity]
  for (const day of days) {
    if (day < first) first = day
    if (day > last) last = day
  }
  if (first === Infinity) return { span: 'day', spans: [] }
  const span = spanFor(first, last)
  const counts = new Map<number, number>()
  for (let at = spanStart(first, span); at <= last; at = nextSpan(at, span)) counts.set(at, 0)
  for (const day of days) {
    const start = spanStart(day, span)
    counts.set(start, (counts.get(start) ?? 0) + 1)
  }
  return { span, spans: [...counts].map(([start, count]) => ({ from: isoFromDay(start), count })) }
}
