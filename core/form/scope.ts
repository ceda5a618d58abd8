import { checkTypes, type Scope } from '../expressions/check'
import { problemAt, type ExpressionProblem } from '../expressions/problem'
import { parseCached, ExpressionError } from '../expressions/parse'
import type { Expr } from '../expressions/tree'
import { BOOLEAN, TEXT, UNKNOWN, type Members, type ValueType } from '../expressions/types'
import type { Form } from './definition'
import { isStandingName, STANDING_NAMES, standingType } from './standing'
import { columnsOf, HELD, valueTypeOf } from './types'
import type { GroupPlace, Place, PlaceOf } from './walk'

/** A rule's text, read: its tree and type, or what is wrong with it. */
export interface RuleReading {
  expr: Expr | null
  type: ValueType
  syntax: ExpressionError | null
  problems: readonly ExpressionProblem[]
}

/** Where an expression stands: what it may name depends on it. */
export interface Standpoint {
  section: number
  groups: readonly GroupPlace[]
  entryOf: GroupPlace | null
}

const isInside = (stand: Standpoint, group: GroupPlace) => stand.groups.some(g => g.order === group.order)

/** The standpoint behind the last section, from which all answers are seen. */
export const standpointAtEnd = ({ sections }: Pick<Form, 'sections'>): Standpoint => ({
  section: Math.max(0, sections.length - 1),
  groups: [],
  entryOf: null,
})

/** The standpoint inside an entry of a repeating group, for its heading. */
export const standpointInside = (place: GroupPlace): Standpoint => ({
  section: place.section,
  groups: [...place.groups, place],
  entryOf: place,
})

/** What names mean in a form, place by place; types are worked out once. */
export class FormNames {
  private readonly questions = new Map<string, PlaceOf<'question'>>()
  private readonly groups = new Map<string, GroupPlace>()
  private readonly types = new Map<string, ValueType>()
  private readonly working = new Set<string>()
  private readonly scopes = new Map<string, Scope>()
  private readonly readings = new Map<string, RuleReading>()
  private readonly quotes = new Map<string, RuleReading>()

  constructor(
    private readonly form: Form,
    private readonly places: readonly Place[],
  ) {
    for (const p of places) {
      if (p.kind === 'question' && !this.questions.has(p.code)) this.questions.set(p.code, p)
      if (p.kind === 'group' && p.node.repeat && !this.groups.has(p.code)) this.groups.set(p.code, p)
    }
  }

  /** The question, or the repeating group, that a code names. */
  placeOf = (code: string): PlaceOf<'question'> | GroupPlace | undefined =>
    this.questions.get(code) ?? this.groups.get(code)

  typeOf(code: string): ValueType {
    const known = this.types.get(code)
    if (known) return known
    // A value that depends on itself is a circle, reported elsewhere; here it is of unknown type.
    if (this.working.has(code)) return UNKNOWN
    this.working.add(code)
    const type = this.typeAt(this.placeOf(code))
    this.working.delete(code)
    this.types.set(code, type)
    return type
  }

  private typeAt(place: PlaceOf<'question'> | GroupPlace | undefined): ValueType {
    if (!place) return UNKNOWN
    if (place.kind === 'group') return this.entriesType(place)
    return valueTypeOf(place.node, this.form, text => this.read(text, place, null).type)
  }

  private entriesType(group: GroupPlace): ValueType {
    const inside = this.places.filter(
      p =>
        p.entryOf?.order === group.order && (p.kind === 'question' || (p.kind === 'group' && p.node.repeat)),
    )
    const members: Members = new Map(inside.map(p => [p.code, this.typeOf(p.code)]))
    return { kind: 'list', of: { kind: 'context', members } }
  }

  /** The scope at a standpoint: earlier questions and those of the same section; inside an entry also its own. */
  at(stand: Standpoint, row: string | null = null): Scope {
    const key = `${stand.section}/${stand.entryOf?.order ?? ''}/${row ?? ''}`
    const known = this.scopes.get(key)
    if (known) return known
    const scope: Scope = {
      lookup: name => {
        if (name === 'row') return row === null ? undefined : { type: this.rowType(row), later: false }
        const place = this.placeOf(name)
        if (!place)
          return isStandingName(name) ? { type: UNKNOWN, later: false, onlyQuoted: true } : undefined
        const outer = place.entryOf
        const within = outer && !isInside(stand, outer) ? outer.code : undefined
        return {
          type: this.typeOf(name),
          later: place.section > stand.section,
          ...(within === undefined ? {} : { within }),
        }
      },
      names: () =>
        [...this.questions.values(), ...this.groups.values()]
          .filter(p => p.section <= stand.section && (!p.entryOf || isInside(stand, p.entryOf)))
          .map(p => p.code),
    }
    this.scopes.set(key, scope)
    return scope
  }

  private rowType(list: string): ValueType {
    const found = this.form.lists?.find(l => l.code === list)
    return {
      kind: 'context',
      members: new Map<string, ValueType>([
        ['code', TEXT],
        ['label', TEXT],
        ...(found ? columnsOf(found) : []).map(c => [c.code, HELD[c.type]] as const),
      ]),
    }
  }

  /** Reads an expression where it stands; with an error of any kind it has no tree. Kept, since texts recur. */
  read(
    text: string,
    stand: Standpoint,
    wanted: ValueType | null = BOOLEAN,
    row: string | null = null,
  ): RuleReading {
    const key = `${stand.section}/${stand.entryOf?.order ?? ''}/${row ?? ''}/${wanted?.kind ?? ''}:${text}`
    const known = this.readings.get(key)
    if (known) return known
    const reading = readRule(text, this.at(stand, row), wanted)
    this.readings.set(key, reading)
    return reading
  }

  /** Reads what a text quotes where it stands: a value of any type. Texts may name standing values, which no rule can rest on. */
  readQuote(text: string, stand: Standpoint): RuleReading {
    const key = `${stand.section}/${stand.entryOf?.order ?? ''}:${text}`
    const known = this.quotes.get(key)
    if (known) return known
    const reading = ofOneValue(readRule(text, withStanding(this.at(stand)), null))
    this.quotes.set(key, reading)
    return reading
  }
}

/** A scope in which standing values can be named, too. */
const withStanding = (scope: Scope): Scope => ({
  lookup: name => {
    const found = scope.lookup(name)
    return found?.onlyQuoted && isStandingName(name) ? { type: standingType(name), later: false } : found
  },
  names: () => [...scope.names(), ...STANDING_NAMES],
})

/** Standing values are quoted by their members. */
function ofOneValue(reading: RuleReading): RuleReading {
  const { expr, type } = reading
  if (expr?.kind !== 'name' || type.kind !== 'context') return reading
  const members = [...type.members.keys()].map(member => `${expr.name}.${member}`)
  const sentence = `“${expr.name}” has several values: write ${members.join(' or ')}.`
  const problem = problemAt('wrong-type', expr, sentence, members[0] ?? null)
  return { ...reading, expr: null, problems: [problem] }
}

/** Reads a rule in a scope; with an error of any kind it has no tree. */
export function readRule(text: string, scope: Scope, wanted: ValueType | null = BOOLEAN): RuleReading {
  try {
    const expr = parseCached(text)
    const { type, problems } = checkTypes(expr, scope, wanted)
    return { expr: problems.length === 0 ? expr : null, type, syntax: null, problems }
  } catch (error) {
    if (error instanceof ExpressionError) return { expr: null, type: UNKNOWN, syntax: error, problems: [] }
    throw error
  }
}
