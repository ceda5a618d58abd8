import type { Form, Item, Question, QuestionType, Section } from './definition'
import { codeFromLabel, freeCode, takenCodes } from './codes'

/** What a new line of the script can become. */
export type LineKind = QuestionType | 'note' | 'group' | 'section'

/** What each type begins with besides code and label. */
const FRESH: { readonly [T in QuestionType]: (code: string, label: string) => Question } = {
  text: (code, label) => ({ kind: 'question', code, type: 'text', label }),
  integer: (code, label) => ({ kind: 'question', code, type: 'integer', label }),
  decimal: (code, label) => ({ kind: 'question', code, type: 'decimal', label }),
  yesNo: (code, label) => ({ kind: 'question', code, type: 'yesNo', label }),
  choice: (code, label) => ({ kind: 'question', code, type: 'choice', label, options: [] }),
  date: (code, label) => ({ kind: 'question', code, type: 'date', label }),
}

/** A new section with a code of its own. */
export const newSection = (form: Form, title: string): Section =>
  ({ code: freeCode(codeFromLabel(title, 'section'), takenCodes(form, 'section')), title, items: [] })

/** A new item from a typed line, with a code made from its words that is free in the form. */
export function newItem(form: Form, kind: Exclude<LineKind, 'section'>, line: string, alsoTaken: readonly string[] = []): Item {
  const taken = new Set([...takenCodes(form, 'item'), ...alsoTaken])
  if (kind === 'note') return { kind, code: freeCode('note', taken), text: line }
  if (kind === 'group') return { kind, code: freeCode(codeFromLabel(line, 'group'), taken), title: line, items: [] }
  return FRESH[kind](freeCode(codeFromLabel(line), taken), line)
}

/** The properties that belong to one type only; they go when the type changes. */
const OWN_KEYS = ['options', 'list', 'min', 'max', 'decimals', 'unit', 'minLength', 'maxLength'] as const

/** The properties to set so that a question becomes one of another type, keeping what both have. */
export function retyped(type: QuestionType): Record<string, unknown> {
  const fresh: Record<string, unknown> = FRESH[type]('x', '')
  return { type, ...Object.fromEntries(OWN_KEYS.map(key => [key, fresh[key] ?? null])) }
}
