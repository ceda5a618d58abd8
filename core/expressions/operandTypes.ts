import { PARTS } from './dates'
import { DATE, DATE_TIME, MONTHS, NUMBER, SECONDS, TEXT, TIME, type Members, type ValueType } from './types'

const ORDERED: ReadonlySet<ValueType['kind']> = new Set([
  'number',
  'date',
  'time',
  'dateTime',
  'months',
  'seconds',
  'unknown',
])
/** Whether values of the type can be less or greater than one another. */
export const isOrdered = (type: ValueType): boolean => ORDERED.has(type.kind)

/** What arithmetic gives beyond numbers, by “left operator right”: texts joined, dates moved, lengths of time added and stretched. */
export const TIMED_RESULTS: Readonly<Record<string, ValueType>> = {
  'text + text': TEXT,
  'date - date': SECONDS,
  'dateTime - dateTime': SECONDS,
  'time - time': SECONDS,
  'dateTime - date': SECONDS,
  'date - dateTime': SECONDS,
  ...movedResults('date', DATE),
  ...movedResults('dateTime', DATE_TIME),
  'time + seconds': TIME,
  'time - seconds': TIME,
  ...lengthResults('months', MONTHS),
  ...lengthResults('seconds', SECONDS),
}

function movedResults(kind: string, result: ValueType): Record<string, ValueType> {
  const keys = ['+', '-'].flatMap(op => ['months', 'seconds'].map(length => `${kind} ${op} ${length}`))
  return Object.fromEntries(keys.map(key => [key, result]))
}

function lengthResults(kind: string, type: ValueType): Record<string, ValueType> {
  return {
    [`${kind} + ${kind}`]: type,
    [`${kind} - ${kind}`]: type,
    [`${kind} * number`]: type,
    [`number * ${kind}`]: type,
    [`${kind} / number`]: type,
    [`${kind} / ${kind}`]: NUMBER,
    [`${kind} + date`]: DATE,
  }
}

const NO_MEMBERS: Members = new Map()
const numbersNamed = (names: readonly string[]): Members => new Map(names.map(n => [n, NUMBER]))
const TIME_MEMBERS: Partial<Record<ValueType['kind'], Members>> = {
  date: numbersNamed(PARTS.date),
  time: numbersNamed(PARTS.time),
  dateTime: numbersNamed(PARTS.dateTime),
  months: numbersNamed(PARTS.months),
  seconds: numbersNamed(PARTS.seconds),
}

/** What a path can reach in values of the type. */
export const membersOf = (type: ValueType): Members =>
  ('members' in type ? type.members : TIME_MEMBERS[type.kind]) ?? NO_MEMBERS
