import { KEYWORDS } from '../expressions/parse'
import type { Form } from './definition'
import { LIMITS } from './limits'
import { listPlaces } from './walk'

const SMALL = new Set([
  'a',
  'an',
  'the',
  'of',
  'to',
  'is',
  'are',
  'you',
  'your',
  'do',
  'does',
  'did',
  'was',
  'were',
  'have',
  'has',
  'what',
  'which',
  'when',
  'where',
  'who',
  'how',
  'in',
  'on',
  'for',
  'and',
  'or',
  'be',
  'been',
  'it',
  'we',
  'from',
  'she',
  'he',
  'they',
  'there',
  'any',
  'this',
  'that',
  'will',
  'shall',
  'can',
  'may',
  'at',
  'by',
  'with',
  'if',
])
const LONGEST_PROPOSAL = 24

/** A code made from a label: its telling words in small letters, joined by `_`. */
export function codeFromLabel(label: string, fallback = 'question'): string {
  const words =
    label
      .normalize('NFKD')
      .replaceAll(/\p{M}/gu, '')
      .replaceAll('ß', 'ss')
      .toLowerCase()
      .match(/[a-z0-9]+/g) ?? []
  const telling = words.filter(w => !SMALL.has(w))
  let code = ''
  for (const word of telling.length > 0 ? telling : words) {
    const longer = code ? `${code}_${word}` : word
    if (code && longer.length > LONGEST_PROPOSAL) break
    code = longer
  }
  code = code.slice(0, LIMITS.code - 6)
  if (code === '') return fallback
  return /^[a-z]/.test(code) && !KEYWORDS.has(code) ? code : `${fallback}_${code}`
}

/** The code itself when it is free, else with the first free number behind it. */
export function freeCode(wanted: string, taken: ReadonlySet<string>): string {
  if (!taken.has(wanted)) return wanted
  let n = 2
  while (taken.has(`${wanted}_${n}`)) n += 1
  return `${wanted}_${n}`
}

/** The codes in use: of sections, or of what stands in them. */
export function takenCodes(form: Form, kind: 'section' | 'item'): Set<string> {
  return new Set(
    listPlaces(form)
      .filter(p => (p.kind === 'section') === (kind === 'section'))
      .map(p => p.code),
  )
}
