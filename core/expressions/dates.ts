/**
 * Calendar dates as ISO 8601 text (`2026-05-01`), years 0001 to 9999: they sort as text and never meet a time zone.
 * Day numbers count from 1970-01-01; the conversions are those of the proleptic Gregorian calendar
 * (H. Hinnant, "chrono-Compatible Low-Level Date Algorithms", 2013).
 */
const PATTERN = /^(\d{4})-(\d{2})-(\d{2})$/
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']

/** Days since 1970-01-01 of a date, or null when the text is not a date of the calendar. */
export function dayNumber(iso: string): number | null {
  const match = PATTERN.exec(iso)
  if (!match) return null
  const [y, m, d] = [Number(match[1]), Number(match[2]), Number(match[3])]
  if (y < 1 || m < 1 || m > 12 || d < 1) return null
  const day = daysFromCivil(y, m, d)
  return isoFromDay(day) === iso ? day : null
}

function daysFromCivil(y: number, m: number, d: number): number {
  const shifted = m <= 2 ? y - 1 : y
  const era = Math.floor(shifted / 400)
  const yearOfEra = shifted - era * 400
  const dayOfYear = Math.floor((153 * (m + (m > 2 ? -3 : 9)) + 2) / 5) + d - 1
  const dayOfEra = yearOfEra * 365 + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100) + dayOfYear
  return era * 146097 + dayOfEra - 719468
}

/** First and last day that a date can be. */
export const FIRST_DAY = daysFromCivil(1, 1, 1)
export const LAST_DAY = daysFromCivil(9999, 12, 31)

/** The date of a day number between FIRST_DAY and LAST_DAY. */
export function isoFromDay(day: number): string {
  const z = day + 719468
  const era = Math.floor(z / 146097)
  const dayOfEra = z - era * 146097
  const yearOfEra = Math.floor((dayOfEra - Math.floor(dayOfEra / 1460) + Math.floor(dayOfEra / 36524) - Math.floor(dayOfEra / 146096)) / 365)
  const dayOfYear = dayOfEra - (365 * yearOfEra + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100))
  const mp = Math.floor((5 * dayOfYear + 2) / 153)
  const d = dayOfYear - Math.floor((153 * mp + 2) / 5) + 1
  const m = mp < 10 ? mp + 3 : mp - 9
  const y = yearOfEra + era * 400 + (m <= 2 ? 1 : 0)
  return `${String(y).padStart(4, '0')}-${String(m).padStart(2, '0')}-${String(d).padStart(2, '0')}`
}

/** A date for people: `24 Nov 2026`. Text that is no date comes back as it is. */
export function readableDate(iso: string): string {
  const match = PATTERN.exec(iso)
  return match ? `${Number(match[3])} ${MONTHS[Number(match[2]) - 1] ?? match[2]} ${match[1]}` : iso
}
