import { standsOf } from '../../documents/checkTags'
import { BOOLEAN } from '../../expressions/types'
import { compile } from '../../expressions/compile'
import { namesIn, type Expr } from '../../expressions/tree'
import type { FormDocument } from '../../form/documents'
import type { Finding } from '../finding'
import type { Goal } from '../goals/goal'
import type { Inquiry } from '../goals/inquiry'
import { askedGoal, neverReached } from './askedAtEnd'
import { type Check, finding, lookAtEach, partAt, quotedName } from './check'
import { documentPart, documentsOf, nameOf, quoteTag, withDocument } from './documentTags'

const NEVER = { code: 'clause-never', severity: 'risk' } as const
const ALWAYS = { code: 'clause-always', severity: 'advice' } as const
const MADE = { code: 'document-never', severity: 'risk' } as const
const BLANK = { code: 'document-quote-blank', severity: 'advice' } as const

const clause = (source: string) =>
  withDocument([
    { is: 'when', source, words: `{{#when ${source}}}` },
    { is: 'end', of: 'when', words: '' },
  ])

export const clauseNever: Check = {
  ...NEVER,
  about: 'A clause of a document is never printed, or what stands behind its else.',
  raises: clause('tons > 40'),
  spares: clause('tons > 10'),
  run: inquiry => lookAtEach(clausesOf(inquiry), found => neverPrinted(inquiry, found)),
}

export const clauseAlways: Check = {
  ...ALWAYS,
  about: 'A clause of a document is always printed where it stands: its condition can go.',
  raises: clause('tons > 0'),
  spares: clause('tons > 10'),
  run: inquiry => lookAtEach(clausesOf(inquiry), found => alwaysPrinted(inquiry, found)),
}

export const documentNever: Check = {
  ...MADE,
  about: 'A document is never made: its condition is not true in any case.',
  raises: withDocument([], { when: 'tons > 40' }),
  spares: withDocument([], { when: 'tons > 10' }),
  run: inquiry =>
    lookAtEach(documentsOf(inquiry), ({ document, index }): Finding[] => {
      if (document.when === undefined) return []
      return neverReached(inquiry, madeGoal(inquiry, document, index), {
        ...{ kind: MADE, own: documentPart(inquiry, index) },
        sentence: `${nameOf(document)} is never made: its condition is not true in any case.`,
        question: `whether ${nameOf(document)} is ever made`,
      })
    }),
}

export const documentQuoteBlank: Check = {
  ...BLANK,
  about: 'A document quotes an answer that may be blank where it is printed.',
  raises: withDocument([quoteTag('remark')]),
  spares: withDocument([quoteTag('name')]),
  run: inquiry => lookAtEach(quotesOf(inquiry), found => blankQuote(inquiry, found)),
}

/** A condition around a tag, and whether the tag stands where it is true, or in its else. */
interface Around {
  expr: Expr
  source: string
  isTrue: boolean
}
interface Printed {
  document: FormDocument
  index: number
  tag: number
  around: readonly Around[]
}
/** A clause with what is around it; `hasElse`: something is printed where its condition is not true. */
interface Clause extends Printed {
  expr: Expr
  source: string
  hasElse: boolean
}

/** Every tag of a document with the conditions around it, as far as they are asked of the response as a whole: what is asked of entries is not decided. */
function* walkTags(inquiry: Inquiry, document: FormDocument) {
  const { plan } = inquiry.model
  const { tags } = document.template
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

const clausesOf = (inquiry: Inquiry): Clause[] =>
  documentsOf(inquiry).flatMap(({ document, index }) =>
    [...walkTags(inquiry, document)].flatMap(({ tag, own, stand, around }): Clause[] => {
      if (own.is !== 'when') return []
      const { expr } = inquiry.model.plan.names.read(own.source, stand, BOOLEAN)
      const hasElse = elseOf(document, tag)
      return expr ? [{ document, index, tag, around, expr, source: own.source, hasElse }] : []
    }),
  )

/** Whether the clause that begins at a tag has an else. */
function elseOf({ template: { tags } }: FormDocument, from: number): boolean {
  let depth = 0
  for (const { is } of tags.slice(from)) {
    if (is === 'when' || is === 'each') depth += 1
    else if (is === 'end') depth -= 1
    else if (is === 'else' && depth === 1) return true
    if (depth === 0) return false
  }
  return false
}

/** Quotes of one question that stand for the response as a whole, each once in a document. */
function quotesOf(inquiry: Inquiry): (Printed & { code: string })[] {
  return documentsOf(inquiry).flatMap(({ document, index }) =>
    [...walkTags(inquiry, document)].flatMap(({ tag, own, around }) => {
      const question = own.is === 'quote' ? inquiry.model.plan.byCode.get(own.source) : undefined
      if (!question || question.place.entryOf !== null) return []
      return [{ document, index, tag, around, code: question.place.code }]
    }),
  )
}

/** When a document is made: its turn is handed on, or the response is complete, and its condition holds. */
function madeGoal(inquiry: Inquiry, document: FormDocument, index: number): Goal {
  const { model } = inquiry
  const rule = model.rules.find(r => r.kind === 'document' && r.index === index) ?? null
  const turn = model.turns.findIndex(t => document.on === 'handedOn' && t.turn.code === document.turn)
  return askedGoal(
    inquiry,
    { key: `document:${index}:${document.on}`, when: document.when, rule, turn },
    true,
  )
}

/** The document is made, and all conditions around a tag are as they are there. */
function printedGoal(inquiry: Inquiry, { document, index, tag }: Printed, around: readonly Around[]): Goal {
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

function neverPrinted(inquiry: Inquiry, clause: Clause): Finding[] {
  const { document, index, expr, source, around, hasElse } = clause
  const sides = hasElse ? [true, false] : [true]
  return sides.flatMap((isTrue): Finding[] => {
    const what = isTrue ? `the clause “${source}”` : `what stands in the else of “${source}”`
    return neverReached(inquiry, printedGoal(inquiry, clause, [...around, { expr, source, isTrue }]), {
      ...{ kind: NEVER, own: documentPart(inquiry, index) },
      sentence: `${nameOf(document)}: ${what} is never printed.`,
      question: `whether ${what} is ever printed`,
    })
  })
}

function alwaysPrinted(inquiry: Inquiry, clause: Clause): Finding[] {
  const { document, index, expr, source, around } = clause
  // Where it stands is never reached: that is said of what is around it.
  if (inquiry.decide(printedGoal(inquiry, clause, around), { aside: true }).is === 'impossible') return []
  const goal = printedGoal(inquiry, clause, [...around, { expr, source, isTrue: false }])
  if (inquiry.decide(goal, { aside: true }).is !== 'impossible') return []
  const sentence = `${nameOf(document)}: the clause “${source}” is always printed where it stands.`
  return [finding(ALWAYS, null, sentence, { conflict: documentPart(inquiry, index) })]
}

function blankQuote(inquiry: Inquiry, quote: Printed & { code: string }): Finding[] {
  const { document, index, around, code } = quote
  const question = inquiry.model.plan.byCode.get(code)
  if (!question) return []
  const { place, slot } = question
  const printed = printedGoal(inquiry, quote, around)
  const goal: Goal = {
    ...printed,
    key: `${printed.key}:blank:${code}`,
    at: place,
    names: [...printed.names, code],
    literals: space => [...printed.literals(space), space.encoding.variable(code).blank],
    holds: state => printed.holds(state) && (state.values[slot] ?? null) === null,
  }
  if (inquiry.decide(goal, { aside: true }).is !== 'possible') return []
  const witness = inquiry.witness(goal)
  if (witness === null) return []
  const sentence = `${nameOf(document)} quotes ${quotedName(place)}, which may be blank there.`
  return [
    finding(BLANK, place, sentence, { conflict: [...documentPart(inquiry, index), partAt(place)], witness }),
  ]
}
