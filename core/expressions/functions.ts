import { absolute, add, ceiling, compareNumbers, divide, floor, isNumber, sameNumber, type Num } from './decimal'
import type { Value, ValueType } from './types'
import { BOOLEAN, DATE, NUMBER, TEXT, UNKNOWN } from './types'

/** What a parameter takes; `items`: one list, or the values one by one (FEEL's two ways of calling `sum`, `min`, …). */
export interface Parameter { name: string, takes: 'number' | 'text' | 'date' | 'list' | 'value', items?: boolean }

export interface FeelFunction {
  parameters: readonly Parameter[]
  /** The type of the result, from the types of the arguments (the items of a list where one is taken). */
  result: (args: readonly ValueType[]) => ValueType
  /** Called with blank-free arguments unless `takesBlank`; the day of the response comes last. */
  run: (args: readonly Value[], today: string) => Value
  takesBlank?: boolean
}

const text = (name: string): Parameter => ({ name, takes: 'text' })
const number = (name: string): Parameter => ({ name, takes: 'number' })
const always = (type: ValueType) => () => type

/** Wraps a function over texts: FEEL gives null when an argument is of another kind. */
const overTexts = (run: (...texts: string[]) => Value) => (args: readonly Value[]): Value => {
  const texts = args.filter(a => typeof a === 'string')
  return texts.length === args.length ? run(...texts) : null
}

const overNumber = (run: (n: Num) => Num | null) => ([n]: readonly Value[]): Value => isNumber(n) ? run(n) : null

const listOf = (args: readonly Value[]): readonly Value[] => args.length === 1 && Array.isArray(args[0]) ? args[0] : args

/** Wraps a function over a list of numbers; a blank among them makes the result blank, as FEEL says. */
const overNumbers = (run: (numbers: readonly Num[]) => Num | null) => (args: readonly Value[]): Value => {
  const items = listOf(args)
  const numbers = items.filter(isNumber)
  return numbers.length === items.length && numbers.length > 0 ? run(numbers) : null
}

const total = (numbers: readonly Num[]) => numbers.reduce<Num | null>((sum, n) => sum === null ? null : add(sum, n), 0)

/** The least or greatest of numbers, dates or texts. */
const extreme = (wanted: 1 | -1) => (args: readonly Value[]): Value => {
  let best: Value = null
  for (const item of listOf(args)) {
    if (item === null) return null
    if (best === null || compareValues(item, best) * wanted > 0) best = item
  }
  return best
}

function compareValues(a: Value, b: Value): number {
  if (isNumber(a) && isNumber(b)) return compareNumbers(a, b)
  if (typeof a === 'string' && typeof b === 'string') return a < b ? -1 : a > b ? 1 : 0
  return 0
}

/** Equality of FEEL values (DMN 1.5, table 42): null equals only null. */
export function sameValue(a: Value, b: Value): boolean {
  if (a === b) return true
  if (isNumber(a) && isNumber(b)) return sameNumber(a, b)
  return Array.isArray(a) && Array.isArray(b) && a.length === b.length && a.every((item, i) => sameValue(item, b[i] ?? null))
}

const itemType = (args: readonly ValueType[]): ValueType => {
  const [first] = args
  return first?.kind === 'list' ? first.of : first ?? UNKNOWN
}

/**
 * The functions that conditions may call: a subset of DMN 1.5, clause 10.3.4, by their standard names and meanings.
 * None reaches anything outside the response.
 */
export const FUNCTIONS: ReadonlyMap<string, FeelFunction> = new Map<string, FeelFunction>([
  ['string length', { parameters: [text('string')], result: always(NUMBER), run: overTexts(s => [...s ?? ''].length) }],
  ['upper case', { parameters: [text('string')], result: always(TEXT), run: overTexts(s => s?.toUpperCase() ?? null) }],
  ['lower case', { parameters: [text('string')], result: always(TEXT), run: overTexts(s => s?.toLowerCase() ?? null) }],
  ['contains', { parameters: [text('string'), text('match')], result: always(BOOLEAN), run: overTexts((s = '', m = '') => s.includes(m)) }],
  ['starts with', { parameters: [text('string'), text('match')], result: always(BOOLEAN), run: overTexts((s = '', m = '') => s.startsWith(m)) }],
  ['ends with', { parameters: [text('string'), text('match')], result: always(BOOLEAN), run: overTexts((s = '', m = '') => s.endsWith(m)) }],
  ['abs', { parameters: [number('n')], result: always(NUMBER), run: overNumber(absolute) }],
  ['floor', { parameters: [number('n')], result: always(NUMBER), run: overNumber(floor) }],
  ['ceiling', { parameters: [number('n')], result: always(NUMBER), run: overNumber(ceiling) }],
  ['count', { parameters: [{ name: 'list', takes: 'list' }], result: always(NUMBER), run: ([list]) => Array.isArray(list) ? list.length : null }],
  ['sum', { parameters: [{ name: 'list', takes: 'number', items: true }], result: always(NUMBER), run: overNumbers(total) }],
  ['mean', {
    parameters: [{ name: 'list', takes: 'number', items: true }],
    result: always(NUMBER),
    run: overNumbers((numbers) => {
      const sum = total(numbers)
      return sum === null ? null : divide(sum, numbers.length)
    }),
  }],
  ['min', { parameters: [{ name: 'list', takes: 'value', items: true }], result: itemType, run: extreme(-1) }],
  ['max', { parameters: [{ name: 'list', takes: 'value', items: true }], result: itemType, run: extreme(1) }],
  ['list contains', {
    parameters: [{ name: 'list', takes: 'list' }, { name: 'element', takes: 'value' }],
    result: always(BOOLEAN),
    takesBlank: true,
    run: ([list, element = null]) => Array.isArray(list) ? list.some(item => sameValue(item, element)) : null,
  }],
  ['today', { parameters: [], result: always(DATE), run: (_, today) => today }],
])
