import { ExpressionError, parse } from '../expressions/parse'
import type { PointedKind } from '../expressions/pointing'
import { sentence, type Names, type Segment } from '../expressions/sentence'
import type { Form } from './definition'
import { valueTypeOf } from './types'
import { rowsOf, type Place, type PlaceOf } from './walk'

/** How questions and choices are called in sentences about a form. */
export function namesOf(form: Form, places: readonly Place[]): Names {
  const questions = new Map<string, PlaceOf<'question'>>()
  for (const p of places) if (p.kind === 'question' && !questions.has(p.code)) questions.set(p.code, p)
  return {
    question: code => questions.get(code)?.node.label || undefined,
    choice: (code, choice) => {
      const node = questions.get(code)?.node
      return node?.type === 'choice' ? rowsOf(form, node)?.find(r => r.code === choice)?.label : undefined
    },
  }
}

/** A rule's text as a sentence; null when it can't be read. */
export function ruleSentence(text: string, names: Names): Segment[] | null {
  try {
    return sentence(parse(text), names)
  }
  catch (error) {
    if (error instanceof ExpressionError) return null
    throw error
  }
}

/** A question that a rule may point at. */
export interface Pointable { code: string, label: string, number: string, kind: PointedKind, choices: { code: string, label: string }[] }

const KINDS: Partial<Record<string, PointedKind>> = { code: 'code', boolean: 'boolean', number: 'number', date: 'date', text: 'text' }

/** The questions that a rule in a section may use: earlier ones and those of the same section. */
export function pointable(form: Form, places: readonly Place[], section: number, except: string | null = null): Pointable[] {
  return places.flatMap((p): Pointable[] => {
    if (p.kind !== 'question' || p.section > section || p.code === except) return []
    const type = valueTypeOf(p.node, form)
    const kind = KINDS[type.kind]
    if (!kind) return []
    return [{ code: p.code, label: p.node.label || p.code, number: p.number, kind, choices: type.kind === 'code' ? [...type.choices].map(([code, label]) => ({ code, label })) : [] }]
  })
}
