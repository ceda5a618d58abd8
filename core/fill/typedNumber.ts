import { numberFromText, type Num } from '../expressions/decimal'

/** How numbers are written where a form is read, and what may stand beside one. */
export interface NumberWriting {
  /** BCP 47, such as `en` or `de-AT`. */
  language: string
  /** What the number counts, or a currency by its code (ISO 4217): may be typed before or behind. */
  unit?: string | undefined
  /** Digits after the point that an answer may have; undefined: any. */
  places?: number | undefined
}

/** What somebody typed, read as a number. `isPlain`: nothing had to be understood, it is written as numbers are kept. */
export type TypedNumber =
  { is: 'number'; number: Num; isPlain: boolean } | { is: 'twofold'; readings: [Num, Num] } | { is: 'none' }

/** So many digits are set apart. */
const GROUP = 3
const NONE: TypedNumber = { is: 'none' }
/** Blanks and apostrophes only ever set groups of digits apart. */
const SPACING = /(?<=\d)[\s\u00A0\u2009\u202F'’](?=\d{3}(?!\d))/g
const GROUPED = /^\d{1,3}(?:([.,])\d{3})(?:\1\d{3})*$/

/**
 * Reads a number as people type it: with a sign, a unit or currency, blanks, points and commas, by the writing of a language.
 * What can be read two ways, both of which the question takes, is neither: `1,234` where three digits may follow the point.
 */
export function readTypedNumber(typed: string, writing: NumberWriting): TypedNumber {
  // A sign stands before the number, or before the currency that stands before it.
  const [outer, amount] = withoutSign(typed.trim())
  const [inner, bare] = withoutSign(withoutUnit(amount, writing))
  if (outer !== '' && inner !== '') return NONE
  const closed = bare.replaceAll(SPACING, '')
  const made = readDigits(closed, bare !== closed, writing)
  if (made.is === 'none') return NONE
  const minus = /[-−]/.test(outer + inner) ? '-' : ''
  const [first, second] = made.texts.map(text => numberFromText(minus + text))
  if (first == null) return NONE
  if (second != null) return { is: 'twofold', readings: [first, second] }
  return { is: 'number', number: first, isPlain: typed.trim() === minus + (made.texts[0] ?? '') }
}

/** The sign at the beginning of a text, and the rest. */
function withoutSign(text: string): [string, string] {
  const [, sign = '', rest = ''] = /^([+\-−]?)\s*(.*)$/s.exec(text) ?? []
  return [sign, rest]
}

/** The plain texts that digits with points and commas may mean. */
type Digits = { is: 'digits'; texts: readonly string[] } | { is: 'none' }
const digitsOf = (...texts: string[]): Digits => ({ is: 'digits', texts })

function readDigits(text: string, isSpaced: boolean, writing: NumberWriting): Digits {
  const marks = [...text].filter(c => c === '.' || c === ',')
  if (!/^\d*(?:[.,]\d+)*$/.test(text) || text === '') return { is: 'none' }
  if (marks.length === 0) return digitsOf(text)
  const last = marks.at(-1) ?? ''
  const at = text.lastIndexOf(last)
  const pointed = `${ungrouped(text.slice(0, at))}.${text.slice(at + 1)}`
  const isOneMark = new Set(marks).size === 1
  if (!isOneMark) return isGrouping(text.slice(0, at), last) ? digitsOf(pointed) : { is: 'none' }
  const mayGroup = GROUPED.test(text) && !text.startsWith('0') && !isSpaced
  if (marks.length > 1) return mayGroup ? digitsOf(ungrouped(text)) : { is: 'none' }
  return mayGroup ? readGroup(text, pointed, last, writing) : digitsOf(pointed)
}

/** `1,234`: thousands, or three digits after the point. */
function readGroup(text: string, pointed: string, mark: string, { language, places }: NumberWriting): Digits {
  const mayPoint = places === undefined || places >= GROUP
  if (!mayPoint) return digitsOf(ungrouped(text))
  return mark === decimalMark(language) ? digitsOf(pointed) : digitsOf(ungrouped(text), pointed)
}

const ungrouped = (text: string): string => text.replaceAll(/[.,]/g, '')
/** Digits in groups of three by one mark, which is not the one that follows. */
const isGrouping = (whole: string, point: string): boolean => GROUPED.test(whole) && !whole.includes(point)

function decimalMark(language: string): string {
  const parts = new Intl.NumberFormat(language).formatToParts(1.5)
  return parts.find(p => p.type === 'decimal')?.value ?? '.'
}

/** The text without the unit or currency of its question, before or behind; a currency by its code or its sign. */
function withoutUnit(text: string, { unit, language }: NumberWriting): string {
  const words = unit ? [unit, ...signsOf(unit, language)] : []
  for (const word of words) {
    const lower = text.toLowerCase()
    if (lower.startsWith(word.toLowerCase())) return text.slice(word.length).trim()
    if (lower.endsWith(word.toLowerCase())) return text.slice(0, -word.length).trim()
  }
  return text
}

function signsOf(currency: string, language: string): string[] {
  if (!/^[A-Z]{3}$/.test(currency)) return []
  return (['symbol', 'narrowSymbol'] as const).flatMap(currencyDisplay => {
    const format = new Intl.NumberFormat(language, { style: 'currency', currency, currencyDisplay })
    return format.formatToParts(0).flatMap(p => (p.type === 'currency' ? [p.value] : []))
  })
}

/** `1,234` or `1.234`: what sets three digits apart may be a point. */
const TWOFOLD = /^[+\-−]?[1-9]\d{0,2}[.,]\d{3}$/

/** Says that a number that was sent as it was typed can be read two ways; null for a text that can’t. */
export function sayTwofold(typed: string): string | null {
  const text = typed.trim()
  if (!TWOFOLD.test(text)) return null
  const [a, b] = [ungrouped(text), text.replace(',', '.')]
  return `“${text}” can be read as ${a} or as ${b}: type one of these.`
}
