import type { Token } from './lex'
import { FUNCTIONS } from './functions'

/** By first word, the longest name first. */
const NAMES = new Map<string, { name: string; words: string[] }[]>()
for (const name of ['not', ...FUNCTIONS.keys()].sort((a, b) => b.split(' ').length - a.split(' ').length)) {
  const words = name.split(' ')
  const first = words[0] ?? ''
  NAMES.set(first, [...(NAMES.get(first) ?? []), { name, words }])
}

/**
 * The function called at a position: its name may have several words (`list contains`) and a bracket follows.
 * `words` counts the tokens after the first up to and including the bracket. A single unknown word before a bracket is a
 * call too, which the type check then reports.
 */
export function functionNameAt(tokens: readonly Token[], at: number): { name: string; words: number } | null {
  const isWord = (i: number, word: string) => {
    const token = tokens[i]
    return token?.kind === 'word' && token.value === word
  }
  const opens = (i: number) => {
    const token = tokens[i]
    return token?.kind === 'sign' && token.value === '('
  }
  const start = tokens[at]
  for (const { name, words } of start?.kind === 'word' ? (NAMES.get(start.value) ?? []) : []) {
    if (words.every((word, i) => isWord(at + i, word)) && opens(at + words.length))
      return { name, words: words.length }
  }
  const first = tokens[at]
  if (first?.kind === 'word' && opens(at + 1) && !RESERVED.has(first.value))
    return { name: first.value, words: 1 }
  return null
}

const RESERVED = new Set([
  'and',
  'or',
  'in',
  'between',
  'if',
  'then',
  'else',
  'true',
  'false',
  'null',
  'some',
  'every',
  'satisfies',
])
