import type { Measure } from './measures'

/** The condition that is true of those who chose an option. */
export function choiceCondition(measure: Measure, code: string): string | null {
  const { asked, options, isSeveral } = measure
  if (asked === null) return null
  if (code === 'true' || code === 'false') return `${asked} = ${code}`
  const isScale = options.every(o => o.points !== null && `${o.points}` === o.code)
  if (isScale && options.length > 0) return `${asked} = ${code}`
  return isSeveral ? `list contains(${asked}, "${code}")` : `${asked} = "${code}"`
}

/** The condition that is true of those whose number is in a bin: from its edge on, below the next one; in the last bin also at that. */
export const binCondition = ({ asked }: Measure, from: number, to: number, isLast: boolean): string | null =>
  asked === null ? null : `${asked} in [${from}..${to}${isLast ? ']' : ')'}`

/** The condition that is true of those whose day is in a span. @param from its first day, @param to the first one after it, as ISO dates */
export const daysCondition = (asked: string, from: string, to: string): string =>
  `${asked} >= @"${from}" and ${asked} < @"${to}"`
