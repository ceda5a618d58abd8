import { freeCode, takenCodes } from '../form/codes'
import type { Form } from '../form/definition'
import { applyEdits, type Edit } from '../form/edits'
import { hasOptions, type Question, type QuestionType } from '../form/questions'
import { renameEdits } from '../form/rename'
import { FormNames } from '../form/scope'
import { TYPES } from '../form/types'
import { unitOf } from '../form/unitOf'
import { listPlaces, placeName, type Address, type PlaceOf } from '../form/walk'
import { renameChoiceEdits } from './renameChoice'

/**
 * A code that a version uses for something else than the version before: of a question, or of an option of one. `was`, `is`: what it means in
 * each. `isCertain`: it can’t be the same thing; else only its words are all others, and whoever wrote them says which it is.
 */
export interface MeaningChange {
  address: Address
  code: string
  name: string
  option: string | null
  was: string
  is: string
  isCertain: boolean
}

/** A change of meaning as a sentence. */
export const sayMeaning = ({ code, name, option, was, is }: MeaningChange): string =>
  option === null
    ? `The code “${code}” was ${was}; it is ${is} now.`
    : `The option “${option}” of “${name}” was ${was}; it is ${is} now.`

/** What tells two changes apart. */
export const meaningKey = ({ address, option }: MeaningChange): string => `${address} ${option ?? ''}`

/** The codes of questions and of their own options that mean something else in a later version. */
export function listMeaningChanges(before: Form, after: Form): MeaningChange[] {
  const [was, is] = [new Meanings(before), new Meanings(after)]
  return [...is.questions.values()].flatMap(place => {
    const earlier = was.questions.get(place.code)
    if (!earlier) return []
    const own = ownChange(place, was.of(earlier), is.of(place), [earlier.node.label, place.node.label])
    return own ? [own] : optionChanges(place, earlier)
  })
}

/** The types whose answers are the same kind of thing. */
const KINDS: Partial<Record<QuestionType, string>> = {
  ...{ text: 'text', longText: 'text', email: 'text', phone: 'text', url: 'text' },
  ...{ integer: 'number', decimal: 'number', choice: 'code', choices: 'list' },
}

/** What a question’s answers are: of what kind, on what measure, and both in words. */
interface Measured {
  kind: string
  measure: string
  words: string
}

/** The questions of a form by code, and what their answers are. */
class Meanings {
  readonly questions: ReadonlyMap<string, PlaceOf<'question'>>
  private readonly names: FormNames

  constructor(form: Form) {
    const places = listPlaces(form)
    this.names = new FormNames(form, places)
    this.questions = new Map(places.flatMap(p => (p.kind === 'question' ? [[p.code, p] as const] : [])))
  }

  of({ node, code }: PlaceOf<'question'>): Measured {
    const isWorkedOut = node.type === 'value' || node.type === 'hidden'
    const kind = isWorkedOut ? this.names.typeOf(code).kind : (KINDS[node.type] ?? node.type)
    const measure = measureOf(node)
    const words = [TYPES[node.type].words, measure].filter(Boolean).join(', ')
    // What nobody asks for has no kind of its own, only that of its value.
    return { kind: isWorkedOut && kind === 'unknown' ? '' : kind, measure, words }
  }
}

/** The unit, currencies or ends of a scale: a number on another one says something else. */
function measureOf(node: Question): string {
  if (node.type === 'scale') return `${node.min} to ${node.max}`
  return unitOf(node) ?? ''
}

function ownChange(
  { address, code, node }: PlaceOf<'question'>,
  was: Measured,
  is: Measured,
  [before, after]: readonly [string, string],
): MeaningChange | null {
  const about = { address, code, name: node.label, option: null }
  const isOther = was.kind !== is.kind && was.kind !== '' && is.kind !== ''
  if (isOther || was.measure !== is.measure) {
    const isNamed = before !== after
    const told = (label: string, { words }: Measured) => (isNamed ? `“${label}”, ${words}` : words)
    // A unit may only be written otherwise.
    const isCertain = isOther || !('unit' in node)
    return { ...about, was: told(before, was), is: told(after, is), isCertain }
  }
  if (areAkin(before, after)) return null
  return { ...about, was: `“${before}”`, is: `“${after}”`, isCertain: false }
}

/** Options under a code that another option’s label stood at, or a label without a word in common. */
function optionChanges(place: PlaceOf<'question'>, earlier: PlaceOf<'question'>): MeaningChange[] {
  if (!hasOptions(place.node) || !hasOptions(earlier.node)) return []
  const before = new Map((earlier.node.options ?? []).map(o => [o.code, o.label]))
  const codeOf = new Map([...before].map(([code, label]) => [label, code]))
  return (place.node.options ?? []).flatMap(({ code, label }): MeaningChange[] => {
    const old = before.get(code)
    if (old === undefined || old === label) return []
    const isCertain = codeOf.has(label)
    if (!isCertain && areAkin(old, label)) return []
    const { address, code: question } = place
    const words = { was: `“${old}”`, is: `“${label}”` }
    return [{ address, code: question, name: placeName(place), option: code, ...words, isCertain }]
  })
}

/** So many letters make two words akin: “engine” and “engines”. */
const STEM = 4
/** Whether two texts may be wordings of one thing: they share a word and no number differs. */
function areAkin(one: string, other: string): boolean {
  const [a, b] = [wordsOf(one), wordsOf(other)]
  const numbers = (words: readonly string[]) => words.filter(w => /^\d/.test(w)).join(' ')
  if (numbers(a) !== numbers(b)) return false
  const stems = new Set(a.map(w => w.slice(0, STEM)))
  return a.length === 0 || b.length === 0 || b.some(w => stems.has(w.slice(0, STEM)))
}
const wordsOf = (text: string): string[] => text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []

/**
 * The mend: what means something else gets a code of its own, in every rule and text too. The draft is put in anew, not renamed: what was
 * answered under the old code stays apart.
 */
export function newCodeEdits(form: Form, { address, option }: MeaningChange): Edit[] {
  const place = listPlaces(form).find(p => p.address === address)
  if (place?.kind !== 'question') return []
  const edits =
    option === null
      ? renameEdits(form, address, freeCode(place.code, takenCodes(form, 'item')))
      : optionEdits(form, place, option)
  return [{ do: 'replace', form: applyEdits(form, edits).form }]
}

function optionEdits(form: Form, { address, node }: PlaceOf<'question'>, from: string): Edit[] {
  const options = hasOptions(node) ? (node.options ?? []) : []
  const to = freeCode(from, new Set(options.map(o => o.code)))
  const next = options.map(o => (o.code === from ? { ...o, code: to } : o))
  return [
    ...renameChoiceEdits(form, { question: address, field: 'options' }, from, to),
    { do: 'change', what: address, set: { options: next } },
  ]
}
