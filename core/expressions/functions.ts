import { dateTimeText, dayNumber, durationFrom, monthsBetween } from './dates'
import {
  absolute,
  add,
  ceiling,
  divide,
  floor,
  isNumber,
  modulo,
  numberFromText,
  rounded,
  type Num,
} from './decimal'
import { patternOf } from './patterns'
import type { Value, ValueType } from './types'
import { BOOLEAN, DATE, MONTHS, NUMBER, SECONDS, TEXT, UNKNOWN } from './types'
import { compareValues, sameValue, valueText } from './values'

/** What a parameter takes; `items`: one list, or the values one by one (FEEL's two ways of calling `sum`, `min`, …). */
export interface Parameter {
  name: string
  takes: 'number' | 'text' | 'boolean' | 'date' | 'list' | 'ordered' | 'value'
  items?: boolean
  optional?: boolean
}

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
const overTexts =
  (run: (...texts: string[]) => Value) =>
  (args: readonly Value[]): Value => {
    const texts = args.filter(a => typeof a === 'string')
    return texts.length === args.length ? run(...texts) : null
  }

const overNumber =
  (run: (n: Num) => Num | null) =>
  ([n]: readonly Value[]): Value =>
    isNumber(n) ? run(n) : null

const overTwo =
  (run: (a: Num, b: Num) => Num | null) =>
  ([a, b]: readonly Value[]): Value =>
    isNumber(a) && isNumber(b) ? run(a, b) : null

/** FEEL counts characters from 1, and from the end with negative numbers (DMN 1.5, table 73). */
function substring(characters: readonly string[], start: number, length: number | undefined): string {
  const from = start > 0 ? start - 1 : Math.max(0, characters.length + start)
  return characters.slice(from, length === undefined ? undefined : from + Math.max(0, length)).join('')
}

/** `decisive` among the items decides; otherwise anything unknown makes the result unknown (Kleene). */
const kleene =
  (decisive: boolean) =>
  (args: readonly Value[]): Value => {
    const items = listOf(args)
    if (items.includes(decisive)) return decisive
    return items.every(i => i === !decisive) ? !decisive : null
  }

function dateOf([first, month, day]: readonly Value[]): Value {
  if (typeof first === 'string' && month === undefined)
    return dayNumber(first) !== null ? first : (dateTimeText(first)?.slice(0, 10) ?? null)
  const parts = [first, month, day]
  if (!parts.every(p => typeof p === 'number' && Number.isInteger(p) && p > 0)) return null
  const iso = `${String(first).padStart(4, '0')}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`
  return dayNumber(iso) === null ? null : iso
}

const listOf = (args: readonly Value[]): readonly Value[] =>
  args.length === 1 && Array.isArray(args[0]) ? args[0] : args

/** Wraps a function over a list of numbers; a blank among them makes the result blank, as FEEL says. */
const overNumbers =
  (run: (numbers: readonly Num[]) => Num | null) =>
  (args: readonly Value[]): Value => {
    const items = listOf(args)
    const numbers = items.filter(isNumber)
    return numbers.length === items.length && numbers.length > 0 ? run(numbers) : null
  }

const total = (numbers: readonly Num[]) =>
  numbers.reduce<Num | null>((sum, n) => (sum === null ? null : add(sum, n)), 0)

/** The least or greatest of numbers, dates, times, lengths of time or texts. */
const extreme =
  (wanted: 1 | -1) =>
  (args: readonly Value[]): Value => {
    let best: Value = null
    for (const item of listOf(args)) {
      if (item === null) return null
      if (best === null || compareValues(item, best) * wanted > 0) best = item
    }
    return best
  }

const itemType = (args: readonly ValueType[]): ValueType => {
  const [first] = args
  return first?.kind === 'list' ? first.of : (first ?? UNKNOWN)
}

/**
 * The functions that conditions may call: a subset of DMN 1.5, clause 10.3.4, by their standard names and meanings.
 * None reaches anything outside the response.
 */
export const FUNCTIONS: ReadonlyMap<string, FeelFunction> = new Map<string, FeelFunction>([
  [
    'string length',
    { parameters: [text('string')], result: always(NUMBER), run: overTexts(s => [...(s ?? '')].length) },
  ],
  [
    'upper case',
    { parameters: [text('string')], result: always(TEXT), run: overTexts(s => s?.toUpperCase() ?? null) },
  ],
  [
    'lower case',
    { parameters: [text('string')], result: always(TEXT), run: overTexts(s => s?.toLowerCase() ?? null) },
  ],
  [
    'contains',
    {
      parameters: [text('string'), text('match')],
      result: always(BOOLEAN),
      run: overTexts((s = '', m = '') => s.includes(m)),
    },
  ],
  [
    'starts with',
    {
      parameters: [text('string'), text('match')],
      result: always(BOOLEAN),
      run: overTexts((s = '', m = '') => s.startsWith(m)),
    },
  ],
  [
    'ends with',
    {
      parameters: [text('string'), text('match')],
      result: always(BOOLEAN),
      run: overTexts((s = '', m = '') => s.endsWith(m)),
    },
  ],
  [
    'matches',
    {
      parameters: [text('input'), text('pattern')],
      result: always(BOOLEAN),
      run: overTexts((s = '', p = '') => patternOf(p)?.matcher(s).find() ?? null),
    },
  ],
  [
    'substring',
    {
      parameters: [text('string'), number('start'), { ...number('length'), optional: true }],
      result: always(TEXT),
      run: ([s, start, length]) =>
        typeof s === 'string' && typeof start === 'number' && start !== 0
          ? substring([...s], start, typeof length === 'number' ? length : undefined)
          : null,
    },
  ],
  [
    'string join',
    {
      parameters: [
        { name: 'list', takes: 'list' },
        { ...text('delimiter'), optional: true },
      ],
      result: always(TEXT),
      run: ([list, glue]) =>
        Array.isArray(list)
          ? list
              .filter(i => i !== null)
              .map(valueText)
              .join(typeof glue === 'string' ? glue : '')
          : null,
    },
  ],
  [
    'string',
    {
      parameters: [{ name: 'value', takes: 'value' }],
      result: always(TEXT),
      run: ([value = null]) => valueText(value),
    },
  ],
  [
    'number',
    {
      parameters: [text('from')],
      result: always(NUMBER),
      run: overTexts(s => numberFromText((s ?? '').trim())),
    },
  ],
  [
    'decimal',
    {
      parameters: [number('n'), number('scale')],
      result: always(NUMBER),
      run: overTwo((n, scale) => rounded(n, Number(scale), 'even')),
    },
  ],
  [
    'round half up',
    {
      parameters: [number('n'), number('scale')],
      result: always(NUMBER),
      run: overTwo((n, scale) => rounded(n, Number(scale), 'up')),
    },
  ],
  [
    'round down',
    {
      parameters: [number('n'), number('scale')],
      result: always(NUMBER),
      run: overTwo((n, scale) => rounded(n, Number(scale), 'down')),
    },
  ],
  [
    'modulo',
    { parameters: [number('dividend'), number('divisor')], result: always(NUMBER), run: overTwo(modulo) },
  ],
  ['abs', { parameters: [number('n')], result: always(NUMBER), run: overNumber(absolute) }],
  ['floor', { parameters: [number('n')], result: always(NUMBER), run: overNumber(floor) }],
  ['ceiling', { parameters: [number('n')], result: always(NUMBER), run: overNumber(ceiling) }],
  [
    'count',
    {
      parameters: [{ name: 'list', takes: 'list' }],
      result: always(NUMBER),
      run: ([list]) => (Array.isArray(list) ? list.length : null),
    },
  ],
  [
    'sum',
    {
      parameters: [{ name: 'list', takes: 'number', items: true }],
      result: always(NUMBER),
      run: overNumbers(total),
    },
  ],
  [
    'mean',
    {
      parameters: [{ name: 'list', takes: 'number', items: true }],
      result: always(NUMBER),
      run: overNumbers(numbers => {
        const sum = total(numbers)
        return sum === null ? null : divide(sum, numbers.length)
      }),
    },
  ],
  [
    'min',
    { parameters: [{ name: 'list', takes: 'ordered', items: true }], result: itemType, run: extreme(-1) },
  ],
  [
    'max',
    { parameters: [{ name: 'list', takes: 'ordered', items: true }], result: itemType, run: extreme(1) },
  ],
  [
    'list contains',
    {
      parameters: [
        { name: 'list', takes: 'list' },
        { name: 'element', takes: 'value' },
      ],
      result: always(BOOLEAN),
      takesBlank: true,
      run: ([list, element = null]) =>
        Array.isArray(list) ? list.some(item => sameValue(item, element)) : null,
    },
  ],
  [
    'distinct values',
    {
      parameters: [{ name: 'list', takes: 'list' }],
      result: ([list]) => list ?? UNKNOWN,
      run: ([list]) =>
        Array.isArray(list)
          ? list.filter((item, i) => list.findIndex(other => sameValue(item, other)) === i)
          : null,
    },
  ],
  [
    'all',
    {
      parameters: [{ name: 'list', takes: 'boolean', items: true }],
      result: always(BOOLEAN),
      takesBlank: true,
      run: kleene(false),
    },
  ],
  [
    'any',
    {
      parameters: [{ name: 'list', takes: 'boolean', items: true }],
      result: always(BOOLEAN),
      takesBlank: true,
      run: kleene(true),
    },
  ],
  [
    'date',
    {
      parameters: [
        { name: 'from', takes: 'value' },
        { ...number('month'), optional: true },
        { ...number('day'), optional: true },
      ],
      result: always(DATE),
      run: args => dateOf(args),
    },
  ],
  [
    'duration',
    { parameters: [text('from')], result: always(SECONDS), run: overTexts(s => durationFrom(s ?? '')) },
  ],
  [
    'years and months duration',
    {
      parameters: [
        { name: 'from', takes: 'date' },
        { name: 'to', takes: 'date' },
      ],
      result: always(MONTHS),
      run: overTexts((from = '', to = '') => monthsBetween(from, to)),
    },
  ],
  ['today', { parameters: [], result: always(DATE), run: (_, today) => today }],
])
