/**
 * Texts may quote answers: `{{ owner_name }}`, `{{ upper case(boat) }}`, `{{ lift_on | long date }}`. A quote is an expression of the rule
 * language, with a format behind a bar where the type's own is not wanted.
 */
export type Piece =
  | { kind: 'words'; text: string }
  | { kind: 'quote'; source: string; format: string | null; from: number; to: number }

const QUOTE = /\{\{([\s\S]*?)\}\}/g
/** How many quotes one text may hold; the rest stands as written. */
const MOST_QUOTES = 100

/** Splits a text into words and quotes; `from` and `to` are the place of the expression in the text. */
export function splitQuotes(text: string): Piece[] {
  if (!text.includes('{{')) return text === '' ? [] : [{ kind: 'words', text }]
  const pieces: Piece[] = []
  let end = 0
  for (const match of [...text.matchAll(QUOTE)].slice(0, MOST_QUOTES)) {
    if (match.index > end) pieces.push({ kind: 'words', text: text.slice(end, match.index) })
    const inner = match[1] ?? ''
    const bar = inner.lastIndexOf('|')
    const source = (bar < 0 ? inner : inner.slice(0, bar)).trim()
    const from = match.index + 2 + inner.length - inner.trimStart().length
    pieces.push({
      kind: 'quote',
      source,
      format: bar < 0 ? null : inner.slice(bar + 1).trim(),
      from,
      to: from + source.length,
    })
    end = match.index + match[0].length
  }
  if (end < text.length) pieces.push({ kind: 'words', text: text.slice(end) })
  return pieces
}

/** The formats of quotes by name. */
export const FORMATS = [
  'upper case',
  'lower case',
  'short date',
  'long date',
  'money',
  'list',
  'lines',
] as const
export type Format = (typeof FORMATS)[number]
export const isFormat = (text: string): text is Format => FORMATS.some(f => f === text)

/** A text with the expressions of its quotes replaced; null for one leaves it. */
export function rewriteQuotes(text: string, replace: (source: string) => string | null): string {
  const quotes = splitQuotes(text)
    .filter(p => p.kind === 'quote')
    .reverse()
  return quotes.reduce((done, q) => {
    const next = replace(q.source)
    return next === null ? done : done.slice(0, q.from) + next + done.slice(q.to)
  }, text)
}

/** A text as it can be told to whoever may not know what it quotes: each quote is left out. */
export const withoutQuotes = (text: string): string => text.replaceAll(QUOTE, '…')
