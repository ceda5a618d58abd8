/**
 * Calendar dates as ISO 8601 text (`2026-05-01`), years 0001 to 9999: they sort as text and never meet a time zone.
 * Day numbers count from 1970-01-01; the conversions are those of the proleptic Gregorian calendar
 * (H. Hinnant, "chrono-Compatible Low-Level Date Algorithms", 2013).
 */
const PATTERN = /^(\d{4})-(\d{2})-(\d{2})$/
const MONTH_NAMES = [
  'january',
  'february',
  'march',
  'april',
  'may',
  'june',
  'july',
  'august',
  'september',
  'october',
  'november',
  'december',
]
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
  const yearOfEra = Math.floor(
    (dayOfEra - Math.floor(dayOfEra / 1460) + Math.floor(dayOfEra / 36524) - Math.floor(dayOfEra / 146096)) /
      365,
  )
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

/** How a date may be written: day, month by name, year. */
const WRITTEN = /^(\d{1,2})\.? ?([a-z]{3,9})\.? ?(\d{4})$/i
/** The date that somebody typed, as ISO text: `27 Nov 2026`, `27 November 2026` or `2026-11-27`; null when it is none, or could be read in two ways. */
export function dateFromText(text: string): string | null {
  const plain = text.trim()
  if (dayNumber(plain) !== null) return plain
  const [, day = '', month = '', year = ''] = WRITTEN.exec(plain) ?? []
  const at = MONTH_NAMES.findIndex(name => month !== '' && name.startsWith(month.toLowerCase()))
  const iso = `${year}-${String(at + 1).padStart(2, '0')}-${day.padStart(2, '0')}`
  return dayNumber(iso) === null ? null : iso
}

/** A time of day as `10:30:00`, read with or without seconds; null when it is none. */
export function timeText(text: string): string | null {
  const match = /^([01]\d|2[0-3]):([0-5]\d)(?::([0-5]\d))?$/.exec(text)
  return match ? `${match[1]}:${match[2]}:${match[3] ?? '00'}` : null
}

/** A date and time without zone as `2026-05-01T10:30:00`; null when it is none. */
export function dateTimeText(text: string): string | null {
  const [date = '', time = '', ...more] = text.split('T')
  const clock = timeText(time)
  return more.length === 0 && dayNumber(date) !== null && clock !== null ? `${date}T${clock}` : null
}

/** The whole of seconds since midnight of a time `10:30:00`. */
const secondsOf = (time: string) =>
  Number(time.slice(0, 2)) * 3600 + Number(time.slice(3, 5)) * 60 + Number(time.slice(6, 8))
const clockOf = (seconds: number) =>
  [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60]
    .map(n => String(n).padStart(2, '0'))
    .join(':')
const DAY = 86_400

/** A date, time, or date and time on one line of seconds; times count from midnight. Null for any other text. */
export function instant(text: string): number | null {
  const day = dayNumber(text.slice(0, 10))
  if (day === null) return timeText(text) === text ? secondsOf(text) : null
  if (text.length === 10) return day * DAY
  return text.charAt(10) === 'T' && timeText(text.slice(11)) ? day * DAY + secondsOf(text.slice(11)) : null
}

/** A date and time from its seconds; null beyond the calendar. */
export function dateTimeFromSeconds(seconds: number): string | null {
  const day = Math.floor(seconds / DAY)
  return day < FIRST_DAY || day > LAST_DAY ? null : `${isoFromDay(day)}T${clockOf(seconds - day * DAY)}`
}
/** A time of day from its seconds since midnight; null beyond the day. */
export const timeFromSeconds = (seconds: number): string | null =>
  seconds >= 0 && seconds < DAY ? clockOf(seconds) : null

/** A length of time, as FEEL has them: whole months, or whole seconds. The two kinds are never compared. */
export interface Duration {
  readonly unit: 'months' | 'seconds'
  readonly amount: number
}
export const isDuration = (value: unknown): value is Duration =>
  typeof value === 'object' && value !== null && 'unit' in value

const LARGEST_DURATION = 1e12

/** Reads an ISO 8601 duration of years and months (`P1Y6M`) or of days and time (`P3DT12H`). */
export function durationFrom(text: string): Duration | null {
  const months = /^(-?)P(?=\d)(?:(\d{1,6})Y)?(?:(\d{1,6})M)?$/.exec(text)
  const sign = text.startsWith('-') ? -1 : 1
  if (months)
    return { unit: 'months', amount: sign * (Number(months[2] ?? 0) * 12 + Number(months[3] ?? 0)) || 0 }
  const parts =
    /^-?P(?=\d|T\d)(?:(\d{1,7})D)?(?:T(?=\d)(?:(\d{1,7})H)?(?:(\d{1,8})M)?(?:(\d{1,9})S)?)?$/.exec(text)
  if (!parts) return null
  const [days = 0, hours = 0, minutes = 0, seconds = 0] = parts.slice(1).map(p => Number(p ?? 0))
  return { unit: 'seconds', amount: sign * (days * DAY + hours * 3600 + minutes * 60 + seconds) || 0 }
}

/** A duration as ISO 8601 text. */
export function durationText({ unit, amount }: Duration): string {
  const sign = amount < 0 ? '-' : ''
  const n = Math.abs(amount)
  const part = (count: number, letter: string) => (count > 0 ? `${count}${letter}` : '')
  if (unit === 'months')
    return n === 0 ? 'P0M' : `${sign}P${part(Math.floor(n / 12), 'Y')}${part(n % 12, 'M')}`
  const time = part(Math.floor(n / 3600) % 24, 'H') + part(Math.floor(n / 60) % 60, 'M') + part(n % 60, 'S')
  return n === 0 ? 'PT0S' : `${sign}P${part(Math.floor(n / DAY), 'D')}${time ? `T${time}` : ''}`
}

/** A date (or date and time, or time) moved by a duration; a day that the month lacks becomes its last. Null beyond the calendar. */
export function moveDate(text: string, by: Duration): string | null {
  if (by.unit === 'months') return movedByMonths(text, by.amount)
  const at = instant(text)
  if (at === null) return null
  const to = at + by.amount
  if (text.length < 10) return clockOf(((to % DAY) + DAY) % DAY)
  const moment = dateTimeFromSeconds(to)
  return moment && (text.length === 10 ? moment.slice(0, 10) : moment)
}

function movedByMonths(text: string, months: number): string | null {
  const match = PATTERN.exec(text.slice(0, 10))
  if (!match) return null
  const total = Number(match[1]) * 12 + Number(match[2]) - 1 + months
  const year = Math.floor(total / 12)
  const month = total - year * 12 + 1
  if (year < 1 || year > 9999) return null
  const wanted = Number(match[3])
  for (let day = wanted; day > wanted - 4; day--) {
    const iso = isoFromDay(daysFromCivil(year, month, day))
    if (Number(iso.slice(5, 7)) === month) return iso + text.slice(10)
  }
  return null
}

/** The time from one date (time, date and time) to another of the same kind. */
export function durationBetween(from: string, to: string): Duration | null {
  const [a, b] = [instant(from), instant(to)]
  return a === null || b === null || from.length < 10 !== to.length < 10
    ? null
    : { unit: 'seconds', amount: b - a }
}

/** Whole months from one date to another, towards zero (DMN 1.5, `years and months duration`). */
export function monthsBetween(from: string, to: string): Duration | null {
  const [a, b] = [PATTERN.exec(from.slice(0, 10)), PATTERN.exec(to.slice(0, 10))]
  if (!a || !b) return null
  const whole = (Number(b[1]) - Number(a[1])) * 12 + Number(b[2]) - Number(a[2])
  // A month that is not full yet does not count, on either side of zero.
  const isShort = whole * (Number(b[3]) - Number(a[3])) < 0
  const amount = isShort ? whole - Math.sign(whole) : whole
  return { unit: 'months', amount: amount || 0 }
}

/** A duration times a number, whole months or seconds, towards zero; null when it becomes too long. */
export function scaleDuration({ unit, amount }: Duration, by: number): Duration | null {
  const product = Math.trunc(amount * by)
  return Math.abs(product) > LARGEST_DURATION || Number.isNaN(product) ? null : { unit, amount: product || 0 }
}

/** A part of a duration, date or time by name (`days`, `year`, `hour`); null when it has no such part. */
export function partOf(value: string | Duration, member: string): number | null {
  if (isDuration(value)) return DURATION_PARTS[value.unit][member]?.(value.amount) ?? null
  const date = PATTERN.exec(value.slice(0, 10))
  const clock = date ? value.slice(11) : value
  if (date && member in DATE_PARTS)
    return DATE_PARTS[member]?.(date, dayNumber(value.slice(0, 10)) ?? 0) ?? null
  return clock.length === 8 && member in CLOCK_PARTS
    ? Number(clock.slice(CLOCK_PARTS[member], (CLOCK_PARTS[member] ?? 0) + 2))
    : null
}

const DURATION_PARTS: Record<Duration['unit'], Record<string, (n: number) => number>> = {
  months: { years: n => Math.trunc(n / 12) || 0, months: n => n % 12 || 0 },
  seconds: {
    days: n => Math.trunc(n / DAY) || 0,
    hours: n => Math.trunc(n / 3600) % 24 || 0,
    minutes: n => Math.trunc(n / 60) % 60 || 0,
    seconds: n => n % 60 || 0,
  },
}
const DATE_PARTS: Record<string, (match: RegExpExecArray, day: number) => number> = {
  year: m => Number(m[1]),
  month: m => Number(m[2]),
  day: m => Number(m[3]),
  weekday: (_, day) => ((((day + 3) % 7) + 7) % 7) + 1,
}
const CLOCK_PARTS: Record<string, number> = { hour: 0, minute: 3, second: 6 }

/** The names of the parts, by the kind of value. */
export const PARTS = {
  months: Object.keys(DURATION_PARTS.months),
  seconds: Object.keys(DURATION_PARTS.seconds),
  date: Object.keys(DATE_PARTS),
  time: Object.keys(CLOCK_PARTS),
  dateTime: [...Object.keys(DATE_PARTS), ...Object.keys(CLOCK_PARTS)],
} as const

/** A time for people: `10:30`, with seconds only where there are some. */
export const readableTime = (time: string): string =>
  time.endsWith(':00') && time.length === 8 ? time.slice(0, 5) : time
/** The date and time that somebody typed, as ISO text: `27 Nov 2026, 10:30` or `2026-11-27T10:30`; null when it is none. */
export function dateTimeFromText(text: string): string | null {
  const at = text.lastIndexOf(text.includes(',') ? ',' : 'T')
  const date = dateFromText(text.slice(0, at))
  return at < 0 || date === null ? null : dateTimeText(`${date}T${text.slice(at + 1).trim()}`)
}
/** A date and time for people: `24 Nov 2026, 10:30`. */
export const readableDateTime = (text: string): string =>
  `${readableDate(text.slice(0, 10))}, ${readableTime(text.slice(11))}`
/** A duration for people: `2 years 3 months`, `3 days 4 hours`. */
export function readableDuration({ unit, amount }: Duration): string {
  const n = Math.abs(amount)
  const parts: [number, string][] =
    unit === 'months'
      ? [
          [Math.floor(n / 12), 'year'],
          [n % 12, 'month'],
        ]
      : [
          [Math.floor(n / DAY), 'day'],
          [Math.floor(n / 3600) % 24, 'hour'],
          [Math.floor(n / 60) % 60, 'minute'],
          [n % 60, 'second'],
        ]
  const words = parts
    .filter(([count]) => count > 0)
    .map(([count, word]) => `${count} ${word}${count === 1 ? '' : 's'}`)
  if (words.length === 0) return unit === 'months' ? '0 months' : '0 days'
  return `${amount < 0 ? '−' : ''}${words.join(' ')}`
}
