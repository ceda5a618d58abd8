import { placesToldOf } from '../../documents/inWords'
import { print } from '../../expressions/print'
import { BOOLEAN } from '../../expressions/types'
import type { Form } from '../../form/definition'
import type { DocumentTag } from '../../form/documents'
import type { Question } from '../../form/questions'
import { standpointAtEnd } from '../../form/scope'
import { findTags } from '../../form/tags'
import type { Finding } from '../finding'
import type { Inquiry } from '../goals/inquiry'
import { type Check, finding, lookAtEach } from './check'
import { numbersQuotedIn, printedGoal, type Around, type NumberQuoted } from './clauses'
import { documentPart, nameOf, withDocument } from './documentTags'
import { mostPlacesOf } from './mostPlaces'
import { undecidedFinding } from './undecided'

const kind = { code: 'document-words-differ', severity: 'risk' } as const

/** A document that tells a number in figures, and one in words behind it, for examples. */
function told(figures: string, inWords: string): Form {
  const words = `Weight: {{ ${figures} }} ({{ ${inWords} | in words }})`
  const tags: DocumentTag[] = [
    { is: 'quote', source: figures, format: null, words },
    { is: 'quote', source: inWords, format: 'in words', words },
  ]
  return withDocument(tags)
}

export const documentWordsDiffer: Check = {
  ...kind,
  about:
    'A document tells a number in words beside the same in figures, and the two can differ: they quote different things, or are rounded differently.',
  raises: told('tons', 'tons + 1'),
  spares: told('tons', 'tons'),
  run: inquiry => lookAtEach(numbersQuotedIn(inquiry).flatMap(pairsOf), pair => canDiffer(inquiry, pair)),
}

interface Pair {
  figures: NumberQuoted
  inWords: NumberQuoted
}

/** Each number that is told in words, with its figures: what stands before or behind it in the same paragraph, else the same number told elsewhere in the document. */
function pairsOf(quoted: readonly NumberQuoted[]): Pair[] {
  return quoted.flatMap((inWords): Pair[] => {
    if (inWords.format !== 'in words') return []
    const figures = quoted.filter(q => q.format !== 'in words' && isAlike(q, inWords))
    const beside =
      figures.find(q => q.tag === inWords.tag - 1 && isBeside(q, inWords)) ??
      figures.find(q => q.tag === inWords.tag + 1 && isBeside(inWords, q)) ??
      figures.find(q => print(q.expr) === print(inWords.expr) && isAround(q, inWords))
    return beside ? [{ figures: beside, inWords }] : []
  })
}

/** Whether two numbers can be meant to be the same: a weight is told in words beside a price, not for it. */
function isAlike(one: NumberQuoted, other: NumberQuoted): boolean {
  const [a, b] = [one.question, other.question]
  if (a === null || b === null) return true
  if (currencyOf(a) !== undefined && currencyOf(b) !== undefined) return true
  return unitOf(a) === unitOf(b)
}
const currencyOf = (question: Question) => ('currency' in question ? question.currency : undefined)
const unitOf = (question: Question) =>
  currencyOf(question) ?? ('unit' in question ? question.unit : undefined) ?? ''

/** Whether the next tag begins among the words that are kept with a tag: in the same paragraph, a few words behind it. */
function isBeside(first: NumberQuoted, next: NumberQuoted): boolean {
  return isNamedIn(first) || isNamedIn(next)
  function isNamedIn({ words }: NumberQuoted): boolean {
    const own = findTags(words).findLast(({ tag }) => isTagOf(tag, first))
    return own !== undefined && words.slice(own.to).includes('{{')
  }
}
const isTagOf = (tag: ReturnType<typeof findTags>[number]['tag'], { source, format }: NumberQuoted) =>
  tag.is === 'quote' && tag.source === source && tag.format === format

/** Whether what is printed of one stands wherever the other does: in the same clauses. */
const isAround = (one: NumberQuoted, other: NumberQuoted) =>
  one.around.every(a => other.around.some(b => a.source === b.source && a.isTrue === b.isTrue))

function canDiffer(inquiry: Inquiry, { figures, inWords }: Pair): Finding[] {
  const differ = differing(inquiry, figures, inWords)
  if (differ === null) return []
  const goal = printedGoal(inquiry, inWords, [...inWords.around, ...differ])
  const decision = inquiry.decide(goal)
  const named = `“${figures.source}” in figures and “${inWords.source}” in words`
  const place = inquiry.model.plan.sections.at(-1)?.place
  if (decision.is === 'undecided' && place)
    return [undecidedFinding(place, `whether ${named} can differ`, decision.why)]
  const witness = decision.is === 'possible' ? inquiry.witness(goal) : null
  if (witness === null) return []
  const sentence = `${nameOf(inWords.document)} tells ${named}, and the two can differ.`
  return [finding(kind, null, sentence, { conflict: documentPart(inquiry, inWords.index), witness })]
}

/** What is asked for the two to be told differently; null where they never are. */
function differing(inquiry: Inquiry, figures: NumberQuoted, inWords: NumberQuoted): Around[] | null {
  const [a, b] = [figures.question, inWords.question].map(q => (q ? currencyOf(q) : undefined))
  if (a !== undefined && b !== undefined && a !== b) return []
  const [one, other] = [toldAs(inquiry, figures), toldAs(inquiry, inWords)]
  if (one === other) return null
  const source = `${one} != ${other}`
  const { expr } = inquiry.model.plan.names.read(source, standpointAtEnd(inquiry.form), BOOLEAN)
  return expr ? [{ expr, source, isTrue: true }] : null
}

/** A number as it is told: rounded to the places after the point that are, where it can have more. */
function toldAs({ model: { plan } }: Inquiry, { expr, format, question }: NumberQuoted): string {
  const isPlain = format !== 'money' || (question !== null && currencyOf(question) !== undefined)
  const places = isPlain ? placesToldOf(question) : 2
  const source = `(${print(expr)})`
  const most = mostPlacesOf(plan, expr)
  const isWhole = places === undefined || (most !== null && most <= places)
  return isWhole ? source : `round half up(${source}, ${places})`
}
