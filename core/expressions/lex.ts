import { numberFromText, type Num } from './decimal'
import { dateTimeText, dayNumber, durationFrom, durationText, timeText } from './dates'
import type { Span } from './tree'

export type Token =
  | (Span & { kind: 'number'; value: Num })
  | (Span & { kind: 'text'; value: string })
  | (Span & { kind: 'date' | 'time' | 'dateTime' | 'duration'; value: string })
  | (Span & { kind: 'word'; value: string })
  | (Span & { kind: 'sign'; value: string })
  | (Span & { kind: 'end' })

/** An expression that can't be read: what is wrong, where, and the text that would be right where that is plain. */
export class ExpressionError extends Error {
  constructor(
    message: string,
    readonly from: number,
    readonly to: number,
    readonly instead: string | null = null,
  ) {
    super(message)
    this.name = 'ExpressionError'
  }
}

/** Longest expression that is read, in characters. */
export const LONGEST_EXPRESSION = 10_000

const SIGNS = [
  '**',
  '<=',
  '>=',
  '!=',
  '==',
  '<>',
  '..',
  '&&',
  '||',
  '=',
  '<',
  '>',
  '+',
  '-',
  '*',
  '/',
  '(',
  ')',
  '[',
  ']',
  ',',
  '.',
  '{',
  '}',
  ':',
  '!',
]
const WORD = /[\p{L}_][\p{L}\p{N}_]*/uy
const NUMBER = /\d+(?:\.\d+)?|\.\d+/y
const SPACE = /[\s\u00a0]+/y
const TYPOGRAPHIC = /[“”„‘’«»]/u

/** Splits an expression into tokens; throws ExpressionError at the first character that can't be read. */
export function tokensOf(source: string): Token[] {
  if (source.length > LONGEST_EXPRESSION) {
    throw new ExpressionError(
      `The expression has ${source.length} characters; at most ${LONGEST_EXPRESSION} are read.`,
      LONGEST_EXPRESSION,
      source.length,
    )
  }
  const tokens: Token[] = []
  let at = 0
  const match = (pattern: RegExp) => {
    pattern.lastIndex = at
    return pattern.exec(source)?.[0]
  }
  while (at < source.length) {
    const space = match(SPACE)
    if (space) {
      at += space.length
      continue
    }
    const from = at
    const token = readToken(source, from, match)
    tokens.push(token)
    at = token.to
  }
  tokens.push({ kind: 'end', from: source.length, to: source.length })
  return tokens
}

function readToken(source: string, from: number, match: (p: RegExp) => string | undefined): Token {
  const char = source.charAt(from)
  if (char === '"') return readText(source, from)
  if (char === '@') return readTemporal(source, from)
  const digits = match(NUMBER)
  if (digits) {
    const value = numberFromText(digits)
    if (value === null)
      throw new ExpressionError('This number has more than 34 digits.', from, from + digits.length)
    return { kind: 'number', value, from, to: from + digits.length }
  }
  const word = match(WORD)
  if (word) return { kind: 'word', value: word, from, to: from + word.length }
  const sign = SIGNS.find(s => source.startsWith(s, from))
  if (sign) return { kind: 'sign', value: sign, from, to: from + sign.length }
  if (TYPOGRAPHIC.test(char))
    throw new ExpressionError('Texts stand between straight quotes: "…".', from, from + 1, '"')
  if (char === "'") throw new ExpressionError('Texts stand between double quotes: "…".', from, from + 1, '"')
  throw new ExpressionError(`“${char}” has no meaning in a condition.`, from, from + 1)
}

const ESCAPES: Record<string, string> = {
  '"': '"',
  '\\': '\\',
  n: '\n',
  t: '\t',
  r: '\r',
  b: '\b',
  f: '\f',
  '/': '/',
}

function readText(source: string, from: number): Token & { kind: 'text' } {
  let value = ''
  let at = from + 1
  for (;;) {
    const char = source.charAt(at)
    if (char === '' || char === '\n')
      throw new ExpressionError('This text has no closing quote.', from, at, `${source.slice(from, at)}"`)
    if (char === '"') return { kind: 'text', value, from, to: at + 1 }
    if (char !== '\\') {
      value += char
      at += 1
      continue
    }
    const next = source.charAt(at + 1)
    const hex = /^u([0-9a-fA-F]{4})/.exec(source.slice(at + 1, at + 6))?.[1]
    const plain = ESCAPES[next]
    if (hex) value += String.fromCharCode(Number.parseInt(hex, 16))
    else if (plain !== undefined) value += plain
    else
      throw new ExpressionError(
        `“\\${next}” is no escape; write \\\\ for a backslash.`,
        at,
        Math.min(at + 2, source.length),
      )
    at += hex ? 6 : 2
  }
}

/** `@"…"`: a date, time, date and time, or duration, by its form (DMN 1.5, at literals). */
function readTemporal(source: string, from: number): Token {
  if (source.charAt(from + 1) !== '"')
    throw new ExpressionError('A date is written @"2026-05-01".', from, from + 1)
  const { value, to } = readText(source, from + 1)
  if (dayNumber(value) !== null) return { kind: 'date', value, from, to }
  const time = timeText(value)
  if (time) return { kind: 'time', value: time, from, to }
  const moment = dateTimeText(value)
  if (moment) return { kind: 'dateTime', value: moment, from, to }
  const duration = durationFrom(value)
  if (duration) return { kind: 'duration', value: durationText(duration), from, to }
  throw new ExpressionError(
    `“${value}” is no date, time or duration; they are written @"2026-05-01", @"10:30:00", @"2026-05-01T10:30:00", @"P3D".`,
    from,
    to,
  )
}
