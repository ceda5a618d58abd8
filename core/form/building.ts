import type { Form, Item, Section } from './definition'
import type { Question } from './questions'

type Of<T extends Question['type']> = Extract<Question, { type: T }>
/** A question: its code, type and label, and what else is said of it. */
export const q = <T extends Question['type']>(
  code: string,
  type: T,
  label: string,
  more: Partial<Of<T>> = {},
): Item => ({ kind: 'question', code, type, label, ...more }) as Of<T>
/** Choices by code and label. */
export const options = (...labels: [code: string, label: string][]) =>
  labels.map(([code, label]) => ({ code, label }))

/** A section with its items. */
export const section = (
  code: string,
  title: string,
  items: Item[],
  more: Partial<Section> = {},
): Section => ({
  code,
  title,
  items,
  ...more,
})

/** A form to start from. */
export interface Template {
  title: string
  about: string
  form: Form
}

/** A form to start from, by its sections. */
export const template = (
  code: string,
  title: string,
  about: string,
  sections: Section[],
  more: Partial<Form> = {},
): Template => ({ title, about, form: { tobbin: 2, code, title, language: 'en', sections, ...more } })
