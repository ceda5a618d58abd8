import type { Form, Item, Section } from '../../form/definition'
import type { Question } from '../../form/questions'

/** Small forms for the checks' examples. */
export const example = (...sections: Section[]): Form => ({
  tobbin: 2,
  code: 'example',
  title: 'Example',
  sections,
})
export const section = (code: string, items: Item[], more: Partial<Section> = {}): Section => ({
  code,
  title: title(code),
  items,
  ...more,
})
export const yesNo = (code: string, more: Partial<Extract<Question, { type: 'yesNo' }>> = {}): Item => ({
  kind: 'question',
  code,
  type: 'yesNo',
  label: title(code),
  required: true,
  ...more,
})
export const whole = (code: string, more: Partial<Extract<Question, { type: 'integer' }>> = {}): Item => ({
  kind: 'question',
  code,
  type: 'integer',
  label: title(code),
  required: true,
  ...more,
})
export const text = (code: string, more: Partial<Extract<Question, { type: 'text' }>> = {}): Item => ({
  kind: 'question',
  code,
  type: 'text',
  label: title(code),
  ...more,
})
export const choice = (code: string, label: string, options: Record<string, string>): Item => ({
  kind: 'question',
  code,
  type: 'choice',
  label,
  required: true,
  options: Object.entries(options).map(([option, words]) => ({ code: option, label: words })),
})
export const hull = (more: Partial<Extract<Question, { type: 'choice' }>> = {}): Item => ({
  kind: 'question',
  code: 'hull',
  type: 'choice',
  label: 'Hull material',
  required: true,
  options: [
    { code: 'wood', label: 'Wood' },
    { code: 'steel', label: 'Steel' },
    { code: 'grp', label: 'Glass fibre' },
  ],
  ...more,
})

const title = (code: string) => code.charAt(0).toUpperCase() + code.slice(1).replaceAll('_', ' ')
