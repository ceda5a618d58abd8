import type { Group, Item, Promised, Section } from '../../../core/form/definition'
import type { QuestionType } from '../../../core/form/questions'

/** One part of a form as people write them: what it asks, and what it promises. */
export interface Part {
  sections: Section[]
  promises: Promised[]
}

/** Draws the details of a part: `code` gives names of its own, `gate` a condition on what was asked before. */
export interface Details {
  code: (name: string) => string
  gate: () => string
  between: (least: number, most: number) => number
}

export type Making = (details: Details) => Part
type Rest = Record<string, unknown>

export const ask = (code: string, type: QuestionType, label: string, rest: Rest = {}): Item =>
  ({ kind: 'question', code, type, label, ...rest }) as Item
export const options = (...codes: string[]) => ({
  options: codes.map(code => ({ code, label: code.replace(/_/g, ' ') })),
})
export const need = { required: true as const }
export const when = (shownWhen: string) => ({ shownWhen })
export const note = (code: string, text: string, shownWhen: string): Item => ({
  kind: 'note',
  code,
  text,
  shownWhen,
})
export const group = (code: string, title: string, items: Item[], rest: Rest = {}) =>
  ({ kind: 'group', code, title, items, ...rest }) as Group
export const check = (rule: string, message: string) => ({ validWhen: [{ rule, message }] })
