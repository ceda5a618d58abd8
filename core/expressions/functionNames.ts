import type { Token } from './lex'
import { FUNCTIONS } from './functions'

const NAMES = ['not', ...FUNCTIONS.keys()]
  .map(name => ({ name, words: name.split(' ') }))
  .sort((a, b) => b.words.length - a.words.length)

/**
 * The function called at a position: its name may have several words (`list contains`) and a bracket follows.
 * `words` counts the tokens after the first up to and including the bracket. A single unknown word before a bracket is a
 * call too, which the type check then reports.
 */
export function functionNameAt(tokens: readonly Token[], at: number): { name: string, words: number } | null {
  const isWord = (i: number, word: string) => {
    const token = tokens[i]
    return token?.kind === 'word' && token.value === word
  }
  const opens = (i: number) => {
    const token = tokens[i]
    return token?.kind === 'sign' && token.value === '('
  }
  for (const { name, words } of NAMES) {
    if (words.every((word, i) => isWord(at + i, word)) && opens(at + words.length)) return { name, words: words.length }
  }
  const first = tokens[at]
  if (first?.kind === 'word' && opens(at + 1) && !RESERVED.has(first.value)) return { name: first.value, words: 1 }
  return null
}

const RESERVED = new Set(['and', 'or', 'in', 'between', 'if', 'then', 'else', 'true', 'false', 'null'])
