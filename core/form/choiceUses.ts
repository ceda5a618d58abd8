import { checkTypes } from '../expressions/check'
import { ExpressionError, parseCached } from '../expressions/parse'
import { nodesOf, type Expr, type Span } from '../expressions/tree'
import { BOOLEAN, type Choices, type ValueType } from '../expressions/types'
import type { Form } from './definition'
import { splitQuotes } from './quotes'
import { isCondition, RULE_WORDS, rulesOf, type Rule } from './rules'
import { FormNames, standpointInside, type Standpoint } from './scope'
import { textsAt, type QuotingText } from './texts'
import { listPlaces, type Address, type Place, type PlaceOf } from './walk'

/** A choice by where it stands: an option or a row of a question, or a row of a list. */
export type ChoiceAt = { question: Address; field: 'options' | 'rows' } | { list: string }

/** Where rules and texts of a form say the code of one choice. */
export class ChoiceUses {
  readonly owners: readonly PlaceOf<'question'>[]
  private readonly names: FormNames
  private readonly choices: ReadonlySet<Choices>
  private readonly ownCodes: ReadonlySet<string>

  constructor(
    readonly form: Form,
    readonly at: ChoiceAt,
    readonly code: string,
    readonly places: readonly Place[] = listPlaces(form),
  ) {
    this.names = new FormNames(form, places)
    const questions = places.filter(p => p.kind === 'question')
    this.owners =
      'list' in at
        ? questions.filter(p => 'list' in p.node && p.node.list === at.list)
        : questions.filter(p => p.address === at.question)
    this.ownCodes = new Set(this.owners.map(p => p.code))
    this.choices = new Set(this.owners.flatMap(p => choicesIn(this.names.typeOf(p.code))))
  }

  isOwner = (code: string): boolean => this.ownCodes.has(code)

  /** Where a rule says the code, the last place first. */
  inRule({ kind, place, text }: Rule): Span[] {
    const wanted = kind === 'default' ? this.names.typeOf(place.code) : null
    const list = kind === 'narrowedBy' && 'list' in place.node ? (place.node.list ?? null) : null
    return this.inExpression(text, place, isCondition(kind) ? BOOLEAN : wanted, list)
  }

  /** The same of an expression in a quote of a text. */
  inQuote({ place, entry }: Pick<QuotingText, 'place' | 'entry'>, source: string): Span[] {
    const stand = entry && place.kind === 'group' ? standpointInside(place) : place
    return this.inExpression(source, stand, null, null)
  }

  /** What of a text of a closing or a delivery stands in a quote, which may use every question. */
  inClosing(source: string): Span[] {
    const end = this.places.findLast(p => p.kind === 'section')
    return end ? this.inExpression(source, end, null, null) : []
  }

  private inExpression(
    text: string,
    stand: Standpoint,
    wanted: ValueType | null,
    row: string | null,
  ): Span[] {
    try {
      const expr = parseCached(text)
      const spans =
        'field' in this.at && this.at.field === 'rows'
          ? this.rowsIn(expr)
          : checkTypes(expr, this.names.at(stand, row), wanted)
              .codes.filter(c => this.choices.has(c.choices) && c.expr.value === this.code)
              .map(({ expr: { from, to } }) => ({ from: from + 1, to: to - 1 }))
      return spans.sort((a, b) => b.from - a.from)
    } catch (error) {
      if (error instanceof ExpressionError) return []
      throw error
    }
  }

  /** A row of a grid is reached by its name: `parts.bow`. */
  private rowsIn(expr: Expr): Span[] {
    const isGrid = (of: Expr) =>
      (of.kind === 'name' && this.isOwner(of.name)) || (of.kind === 'path' && this.isOwner(of.member))
    return nodesOf(expr).flatMap(n =>
      n.kind === 'path' && n.member === this.code && isGrid(n.of)
        ? [{ from: n.to - n.member.length, to: n.to }]
        : [],
    )
  }

  /** Who says the code, in a few words each: “Keel bolts” (shown when). */
  words(): { place: Place; words: string }[] {
    const ruled = rulesOf(this.form, this.places)
      .filter(rule => this.inRule(rule).length > 0)
      .map(({ place, kind }) => ({ place, words: RULE_WORDS[kind].toLowerCase() }))
    const quoting = this.places
      .filter(place => textsAt(place).some(text => this.isQuotedIn(text)))
      .map(place => ({ place, words: 'quotes it' }))
    const under = this.places
      .filter(place => this.isAbove(place))
      .map(place => ({ place, words: 'stands under it' }))
    return [...ruled, ...quoting, ...under]
  }

  private isQuotedIn = (text: QuotingText): boolean =>
    splitQuotes(text.text).some(p => p.kind === 'quote' && this.inQuote(text, p.source).length > 0)

  /** Whether something stands under the choice on the page. */
  isAbove({ node }: Place): boolean {
    const under = 'under' in node ? node.under : undefined
    return under !== undefined && under.option === this.code && this.isOwner(under.question)
  }
}

function choicesIn(type: ValueType): Choices[] {
  if (type.kind === 'code') return [type.choices]
  if (type.kind === 'list') return [...choicesIn(type.of), ...membersIn(type.members)]
  return type.kind === 'context' ? membersIn(type.members) : []
}
const membersIn = (members: ReadonlyMap<string, ValueType> | undefined): Choices[] =>
  [...(members?.values() ?? [])].flatMap(choicesIn)
