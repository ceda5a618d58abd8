import type { Finding } from '../finding'
import type { Goal } from '../goals/goal'
import type { Inquiry } from '../goals/inquiry'
import { neverReached } from './askedAtEnd'
import { type Check, finding, lookAtEach, partAt, quotedName } from './check'
import { clausesOf, madeGoal, printedGoal, quotesOf, type Clause, type Printed } from './clauses'
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
