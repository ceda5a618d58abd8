import { standsOf } from '../../documents/checkTags'
import { ITEM } from '../../documents/templateScope'
import { tagsOf } from '../../documents/templateTags'
import { compile } from '../../expressions/compile'
import { namesIn, type Expr } from '../../expressions/tree'
import { BOOLEAN, NUMBER } from '../../expressions/types'
import { turnMadeAt, type FormDocument } from '../../form/documents'
import type { Question } from '../../form/questions'
import type { TemplateFormat } from '../../form/tags'
import type { Goal } from '../goals/goal'
import type { Inquiry } from '../goals/inquiry'
import { askedGoal } from './askedAtEnd'
import { documentsOf } from './documentTags'

/** A condition around a tag, and whether the tag stands where it is true, or in its else. */
export interface Around {
  expr: Expr
  source: string
  isTrue: boolean
}
export interface Printed {
  document: FormDocument
  index: number
  tag: number
  around: readonly Around[]
}
/** A clause with what is around it, and the tag with which it ends; `hasElse`: something is printed where its condition is not true. */
export interface Clause extends Printed {
  expr: Expr
  source: string
  hasElse: boolean
  end: number
}

/** Every tag of a document with the conditions around it, as far as they are asked of the response as a whole: what is asked of entries is not decided. */
function* walkTags(inquiry: Inquiry, document: FormDocument) {
  const { plan } = inquiry.model
  const tags = tagsOf(document.template)
  const stands = standsOf(plan, tags)
  const open: { around: Around | null; isDecided: boolean }[] = []
  for (const [tag, { is }] of tags.entries()) {
    const own = tags[tag]
    const here = stands[tag]
    if (!own || !here) continue
    const isDecided = here.stand.entryOf === null && open.every(o => o.isDecided)
    if (isDecided && is !== 'end' && is !== 'else')
      yield { tag, own, stand: here.stand, around: open.flatMap(o => o.around ?? []) }
    const last = open.at(-1)
    if (is === 'end') open.pop()
    else if (is === 'else' && last?.around) last.around = { ...last.around, isTrue: false }
    else if (own.is === 'each') open.push({ around: null, isDecided: true })
    else if (own.is === 'when') {
      const { expr } = plan.names.read(own.source, here.stand, BOOLEAN)
      open.push({
        around: expr ? { expr, source: own.source, isTrue: true } : null,
        isDecided: expr !== null,
      })
    }
  }
}

export const clausesOf = (inquiry: Inquiry): Clause[] =>
  documentsOf(inquiry).flatMap(({ document, index }) =>
    [...walkTags(inquiry, document)].flatMap(({ tag, own, stand, around }): Clause[] => {
      if (own.is !== 'when') return []
      const { expr } = inquiry.model.plan.names.read(own.source, stand, BOOLEAN)
      const ends = endsOf(document, tag)
      return expr ? [{ document, index, tag, around, expr, source: own.source, ...ends }] : []
    }),
  )

/** Where the clause that begins at a tag ends, and whether it has an else. */
function endsOf({ template }: FormDocument, from: number): Pick<Clause, 'end' | 'hasElse'> {
  const tags = tagsOf(template)
  let depth = 0
  let hasElse = false
  for (const [i, { is }] of tags.entries()) {
    if (i < from) continue
    if (is === 'when' || is === 'each') depth += 1
    else if (is === 'end') depth -= 1
    else if (is === 'else' && depth === 1) hasElse = true
    if (depth === 0) return { end: i, hasElse }
  }
  return { end: tags.length, hasElse }
}

/** Quotes of one question that stand for the response as a whole, each once in a document. */
export function quotesOf(inquiry: Inquiry): (Printed & { code: string })[] {
  return documentsOf(inquiry).flatMap(({ document, index }) =>
    [...walkTags(inquiry, document)].flatMap(({ tag, own, around }) => {
      const question = own.is === 'quote' ? inquiry.model.plan.byCode.get(own.source) : undefined
      if (!question || question.place.entryOf !== null) return []
      return [{ document, index, tag, around, code: question.place.code }]
    }),
  )
}

/** A number that a document tells, for the response as a whole: in figures, or in words. */
export interface NumberQuoted extends Printed {
  source: string
  expr: Expr
  format: TemplateFormat | null
  words: string
  /** Whose answer it is; null where it is worked out in the quote. */
  question: Question | null
}

/** The numbers that each document tells, in their order; none of entries, of loops, and of amounts whose currency is chosen. */
export const numbersQuotedIn = (inquiry: Inquiry): NumberQuoted[][] =>
  documentsOf(inquiry).map(({ document, index }) => {
    const { plan } = inquiry.model
    return [...walkTags(inquiry, document)].flatMap(({ tag, own, stand, around }): NumberQuoted[] => {
      if (own.is !== 'quote' || ITEM.test(own.source)) return []
      const { source, format, words } = own
      const { expr, type } = plan.names.readQuote(source, stand)
      if (!expr || type.kind !== NUMBER.kind) return []
      const question = expr.kind === 'name' ? (plan.byCode.get(expr.name)?.place.node ?? null) : null
      return [{ document, index, tag, around, source, expr, format, words, question }]
    })
  })

/** When a document is made: its turn is handed on, or the response is complete, and its condition holds. */
export function madeGoal(inquiry: Inquiry, document: FormDocument, index: number): Goal {
  const { model } = inquiry
  const rule = model.rules.find(r => r.kind === 'document' && r.index === index) ?? null
  const madeAt = turnMadeAt(document)
  const turn = model.turns.findIndex(t => t.turn.code === madeAt)
  return askedGoal(
    inquiry,
    { key: `document:${index}:${document.on}:${madeAt ?? ''}`, when: document.when, rule, turn },
    true,
  )
}

/** The document is made, and all conditions around a tag are as they are there. */
export function printedGoal(
  inquiry: Inquiry,
  { document, index, tag }: Printed,
  around: readonly Around[],
): Goal {
  const made = madeGoal(inquiry, document, index)
  const { environment } = inquiry.model.plan
  const told = around.map(a => `${a.isTrue} ${a.source}`).join('; ')
  return {
    ...made,
    key: `${made.key}:tag:${tag}:${told}`,
    names: [...made.names, ...around.flatMap(a => namesIn(a.expr))],
    literals: space => [
      ...made.literals(space),
      ...around.map(({ expr, isTrue }) => {
        const { t } = space.encoding.truth(expr)
        return isTrue ? t : -t
      }),
    ],
    holds: state =>
      made.holds(state) &&
      around.every(({ expr, isTrue }) => (compile(expr, environment)(state.values) === true) === isTrue),
  }
}
