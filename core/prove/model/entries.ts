import { compile } from '../../expressions/compile'
import { type Compiled, type Environment } from '../../expressions/compiled'
import { print } from '../../expressions/print'
import { namesIn, nodesOf, type Expr } from '../../expressions/tree'
import type { Value, ValueType } from '../../expressions/types'
import type {
  Plan,
  PlannedCheck,
  PlannedGroup,
  PlannedOffer,
  PlannedQuestion,
  PlannedRule,
  Step,
} from '../../fill/planned'
import { readerOf } from '../../fill/readers'
import { isQuestion, isRepeating, ownRules } from '../../fill/steps'
import type { QuestionOf } from '../../form/questions'
import { HERE, replaced } from './rewritten'

/** A repeating group that rules look into from outside of it. */
export interface Entries {
  group: PlannedGroup
  /** How many of its entries are told apart. */
  copies: number
  /** These are enough: whatever a rule finds in some entry, it can be taken to find in one of them. Else further ones may hold anything. */
  enough: boolean
  /** The questions of an entry that such rules ask for. */
  members: readonly string[]
}

/** Entries told apart, at least and at most, where rules find out more about them. */
const COPIES = 3
const MOST_COPIES = 16
/** A group of no more entries than this has all of them told apart; so many are where no number is enough. */
const FEW_COPIES = 6
/** The places of a copy, by its number, come after all others. */
const STRIDE = 1_000_000

const AT = '@'
/** A name that nothing has: what is said with it can be anything. */
const unknown = (name: string): Expr => ({ kind: 'name', name: `\u0000${name}`, ...HERE })
/** The question of the k-th entry, from 1 on; no code of a form has this sign. */
export const codeAt = (code: string, entry: number): string => `${code}${AT}${entry}`
const ROW = '#'
/** The row of a grid, as a question of its own. */
export const rowCode = (grid: string, row: string): string => `${grid}${ROW}${row}`
const PARTS = /^([^@#]*)(?:@(\d+))?(?:#(.*))?$/s
/** A code as it is known by: the first entry's without its number. */
export const plainCode = (code: string): string => (code.includes(AT) ? partsOf(code) : code)
function partsOf(code: string): string {
  const { base, entry } = baseOf(code)
  return entry === 1 ? base : code
}

/**
 * What a code is made of: the code that a question of an entry goes by in the form, and which entry it is of; of the row of a grid, the grid
 * (in its entry) and the row.
 */
export function baseOf(code: string): { base: string; entry: number; grid: string | null; row: string } {
  const at = code.includes(AT) || code.includes(ROW) ? PARTS.exec(code) : null
  if (!at) return { base: code, entry: 1, grid: null, row: '' }
  const [, own = '', entry = '1', row] = at
  return {
    base: row === undefined ? own : rowCode(own, row),
    entry: Number(entry),
    grid: row === undefined ? null : entry === '1' ? own : codeAt(own, Number(entry)),
    row: row ?? '',
  }
}

/**
 * The entries of repeating groups as questions of their own. The first is the group's questions themselves: goals about an entry are goals
 * about it, which loses nothing, since rules from outside don't tell entries apart but by their number.
 */
export class Copies {
  readonly of = new Map<string, Entries>()
  readonly environment: Environment
  private readonly rows = new Map<string, readonly string[]>()
  /** Grids of which the points of every choice matter. */
  readonly counted = new Set<string>()
  private readonly steps = new Map<string, PlannedQuestion>()
  private readonly slots = new Map<string, number>()
  private readonly made = new Map<number, Step>()

  constructor(
    private readonly plan: Plan,
    expressions: readonly Expr[],
    private readonly circular: Set<string>,
  ) {
    const named = new Map<PlannedGroup, Named>()
    for (const expr of expressions) {
      const nodes = [...nodesOf(expr)]
      const groups = nodes.flatMap(n => (n.kind === 'name' ? (plan.groups.get(n.name) ?? []) : []))
      for (const group of new Set(groups)) {
        const found = named.get(group) ?? { members: new Set<string>(), number: 0, facts: new Map() }
        named.set(group, found)
        for (const [what, entries] of factsAsked(expr, group)) found.facts.set(what, entries)
        for (const code of membersOf(group))
          if (
            nodes.some(
              n => (n.kind === 'path' && n.member === code) || (n.kind === 'name' && n.name === code),
            )
          )
            found.members.add(code)
        for (const n of nodes)
          if (n.kind === 'filter' && n.by.kind === 'number' && typeof n.by.value === 'number')
            found.number = Math.max(found.number, n.by.value)
      }
    }
    for (const [group, { members, number, facts: asked }] of named) {
      const facts = [...asked.values()].reduce((sum, n) => sum + n, 0)
      const inside = group.inner.some(s =>
        [...ownRules(s), ...s.checks].some(r => r.expr && namesIn(r.expr).includes(group.place.code)),
      )
      const wanted = number + facts <= MOST_COPIES ? Math.max(COPIES, group.min, number + facts) : FEW_COPIES
      const copies = group.max <= FEW_COPIES ? group.max : Math.min(group.max, MOST_COPIES, wanted)
      this.of.set(group.place.code, {
        group,
        members: [...members],
        copies,
        enough: number + facts <= copies && !inside,
      })
    }
    for (const {
      place: { node, code },
    } of plan.questions)
      if (node.type === 'grid')
        this.noteRows(
          code,
          node.rows.map(r => r.code),
          expressions,
        )
    this.environment = {
      slotOf: name => this.slotOf(name),
      memberOf: (name, member) => this.memberOf(name, member),
    }
  }

  private noteRows(code: string, rows: readonly string[], expressions: readonly Expr[]) {
    const asking = expressions
      .map(e => [...nodesOf(e)])
      .filter(nodes =>
        nodes.some(n => (n.kind === 'name' && n.name === code) || (n.kind === 'path' && n.member === code)),
      )
    const members = new Set(
      asking.flatMap(nodes => nodes.flatMap(n => (n.kind === 'path' ? [n.member] : []))),
    )
    if (asking.length > 0)
      this.rows.set(code, members.has('points') ? rows : rows.filter(r => members.has(r)))
    if (members.has('points')) this.counted.add(code)
  }

  /** How many values a response has, with those of the copies. */
  get size(): number {
    return this.plan.size + this.slots.size
  }

  typeOf(code: string): ValueType {
    return this.plan.names.typeOf(baseOf(code).base)
  }

  private slotOf(name: string): number | undefined {
    const { base, entry, grid } = baseOf(name)
    const own = this.plan.environment.slotOf(base)
    if (grid === null && (entry === 1 || own === undefined)) return own
    const known = this.slots.get(name)
    if (known !== undefined) return known
    const slot = this.size
    this.slots.set(name, slot)
    return slot
  }

  private memberOf(name: string, member: string): Compiled | undefined {
    const { base, entry } = baseOf(name)
    const reach = this.plan.environment.memberOf?.(base, member)
    const [own, slot] = [this.plan.environment.slotOf(base), this.slotOf(name)]
    if (!reach || entry === 1 || own === undefined || slot === undefined) return reach
    return slots => {
      const there: Value[] = [...slots]
      there[own] = slots[slot] ?? null
      return reach(there)
    }
  }

  /** A question by its code, or that of an entry's copy, or a grid's row. */
  stepOf(code: string): PlannedQuestion | undefined {
    const plain = this.plan.byCode.get(code)
    if (plain) return plain
    const { base, entry, grid, row } = baseOf(code)
    if (entry === 1 && grid === null) return this.plan.byCode.get(base)
    const known = this.steps.get(code)
    if (known) return known
    if (grid !== null) return this.rowOf(code, grid, row)
    const around = this.plan.byCode.get(base)?.place.entryOf
    const entries = around ? this.of.get(around.code) : undefined
    if (!entries || entry > entries.copies) return undefined
    this.copy(entries.group, entry)
    return this.steps.get(code)
  }

  /** A row of a grid as a choice, in play and required with it. */
  private rowOf(code: string, grid: string, row: string): PlannedQuestion | undefined {
    const whole = this.stepOf(grid)
    if (whole?.place.node.type !== 'grid' || !whole.place.node.rows.some(r => r.code === row))
      return undefined
    const { label, options, required } = whole.place.node
    const node: QuestionOf<'choice'> = {
      kind: 'question',
      type: 'choice',
      code,
      label,
      options,
      ...(required === undefined ? {} : { required }),
    }
    const made: PlannedQuestion = {
      ...whole,
      place: { ...whole.place, code, node },
      checks: [],
      value: null,
      offer: null,
      read: readerOf(node),
    }
    this.steps.set(code, made)
    return made
  }

  /** The rows of a grid that rules ask for one by one. */
  rowsOf(grid: string): readonly string[] {
    if (this.rows.size === 0) return []
    return (this.rows.get(baseOf(grid).base) ?? []).map(row => rowCode(grid, row))
  }

  /** What stands at a place of a copy. */
  stepAt = (order: number): Step | undefined => this.made.get(order)

  /** A step of a group's entry, in the k-th. */
  inEntry(step: Step, group: PlannedGroup, entry: number): Step {
    if (entry === 1) return step
    if (!this.made.has(group.place.order + entry * STRIDE)) this.copy(group, entry)
    return this.made.get(step.place.order + entry * STRIDE) ?? step
  }

  private copy(group: PlannedGroup, entry: number) {
    const add = entry * STRIDE
    const codes = new Set([...membersOf(group), ...group.steps.filter(isRepeating).map(s => s.place.code)])
    const rename = (expr: Expr): Expr =>
      replaced(expr, n =>
        n.kind === 'name' && codes.has(n.name) ? { ...n, name: codeAt(n.name, entry) } : null,
      )
    this.made.set(group.place.order + add, {
      ...group,
      place: { ...group.place, code: codeAt(group.place.code, entry), order: group.place.order + add },
    })
    for (const step of group.inner) {
      if (step.place.entryOf !== group.place || isRepeating(step)) continue
      const copy = this.copied(step, entry, add, rename)
      this.made.set(copy.place.order, copy)
      if (!isQuestion(copy)) continue
      this.steps.set(copy.place.code, copy)
      if (this.circular.has(step.place.code)) this.circular.add(copy.place.code)
    }
  }

  private copied(step: Step, entry: number, add: number, rename: (expr: Expr) => Expr): Step {
    const rule = <R extends PlannedRule>(r: R): R => {
      const expr = r.expr && rename(r.expr)
      return { ...r, expr, run: expr ? compile(expr, this.environment) : r.run }
    }
    const maybe = <R extends PlannedRule>(r: R | true | null) => (r === null || r === true ? r : rule(r))
    const optional = (r: PlannedRule | null) => r && rule(r)
    const common = {
      shown: optional(step.shown),
      readOnly: maybe(step.readOnly),
      checks: step.checks.map((c): PlannedCheck => rule(c)),
      parent: step.parent + add,
    }
    const at = { code: codeAt(step.place.code, entry), order: step.place.order + add }
    if (!isQuestion(step)) return { ...step, ...common, place: { ...step.place, ...at } }
    const { offer } = step
    const offered =
      offer &&
      ({
        ...offer,
        narrow: optional(offer.narrow),
        rules: offer.rules?.map(optional) ?? null,
      } satisfies PlannedOffer)
    return {
      ...step,
      ...common,
      place: { ...step.place, ...at },
      required: maybe(step.required),
      default: optional(step.default),
      value: optional(step.value),
      offer: offered,
    }
  }
}

/** What rules ask of a group: which questions, up to which entry by number, and how many things that one entry each is enough to show. */
interface Named {
  members: Set<string>
  number: number
  facts: Map<string, number>
}

/**
 * How many entries it takes to show all that a condition can find out about a list: that something holds for one, that it does not fail for one,
 * that one is the greatest. Entries are alike to conditions but for their numbers, so these can be taken to be the ones that are told apart.
 * By what is asked: the same asked twice takes no more.
 */
function* factsAsked(expr: Expr, group: PlannedGroup): Generator<[string, number]> {
  const asks = (e: Expr) => namesIn(e).includes(group.place.code)
  for (const n of nodesOf(expr)) {
    if (n.kind === 'quantified' && asks(n.over)) yield [print(n), asks(n.satisfies) ? Infinity : 2]
    if (n.kind === 'filter' && asks(n.of) && n.by.kind !== 'number')
      yield [print(n), asks(n.by) ? Infinity : 2]
    const [list] = n.kind === 'call' ? n.args : []
    if (n.kind === 'call' && list && asks(list)) yield [print(n), ASKED_BY[n.name] ?? 0]
  }
}
const ASKED_BY: Readonly<Record<string, number>> = {
  'list contains': 1,
  sum: 1,
  any: 2,
  all: 2,
  min: 2,
  max: 2,
}

/** The codes of the questions that an entry holds, those of entries inside it left out. */
const membersOf = (group: PlannedGroup): string[] =>
  group.steps.flatMap(s => (isQuestion(s) ? [s.place.code] : []))

/** The items that a list of entries stands for: all of a group, or those for which a condition holds. */
export interface Source {
  entries: Entries
  by: Expr | null
}
export function sourceOf(expr: Expr, copies: Copies): Source | null {
  if (expr.kind === 'name') {
    const entries = copies.of.get(expr.name)
    return entries ? { entries, by: null } : null
  }
  if (
    expr.kind !== 'filter' ||
    expr.of.kind !== 'name' ||
    expr.by.kind === 'number' ||
    expr.by.kind === 'negate'
  )
    return null
  const entries = copies.of.get(expr.of.name)
  // What stands in inner brackets is asked of other items.
  return entries && ![...nodesOf(expr.by)].some(n => n.kind === 'filter') ? { entries, by: expr.by } : null
}

/** A condition about entries (`e.power > 5` for each `e`) as one about the k-th; a name that nothing has stands for what can't be said so. */
export const ofVariable = (expr: Expr, variable: string, group: PlannedGroup, entry: number): Expr =>
  replaced(expr, n => {
    if (n.kind === 'path' && n.of.kind === 'name' && n.of.name === variable)
      return membersOf(group).includes(n.member)
        ? { kind: 'name', name: codeAt(n.member, entry), ...HERE }
        : unknown(n.member)
    return n.kind === 'name' && n.name === variable ? unknown(variable) : null
  })

/** A condition about values (`x > 5` for each `x` of the entries' answers) as one about the answer of one entry. */
export const ofValue = (expr: Expr, variable: string, code: string): Expr =>
  replaced(expr, n =>
    n.kind === 'name' && n.name === variable ? { kind: 'name', name: code, ...HERE } : null,
  )

/** What stands in the brackets of a filter, of the k-th entry. */
export const ofItem = (expr: Expr, group: PlannedGroup, entry: number): Expr => {
  const codes = new Set(membersOf(group))
  return replaced(ofVariable(expr, 'item', group, entry), n =>
    n.kind === 'name' && codes.has(n.name) ? { ...n, name: codeAt(n.name, entry) } : null,
  )
}

/** `guests[2].age`, `guests.age[2]`, `care.hull`: the answer of one entry or of a grid's row, as a name; anything else as it is. */
export function single(expr: Expr, copies: Copies): Expr {
  if (expr.kind === 'path') {
    const of = single(expr.of, copies)
    if (of.kind === 'name') {
      const row = rowCode(of.name, expr.member)
      if (copies.stepOf(row)) return { kind: 'name', name: row, ...HERE }
    }
  }
  const [filter, member] =
    expr.kind === 'path' && expr.of.kind === 'filter'
      ? [expr.of, expr.member]
      : expr.kind === 'filter' && expr.of.kind === 'path'
        ? [expr, expr.of.member]
        : [null, '']
  const list = filter?.of.kind === 'path' ? filter.of.of : filter?.of
  const entries = list?.kind === 'name' ? copies.of.get(list.name) : undefined
  if (
    !entries ||
    filter?.by.kind !== 'number' ||
    typeof filter.by.value !== 'number' ||
    !entries.members.includes(member)
  )
    return expr
  const { value } = filter.by
  return Number.isInteger(value) && value >= 1 && value <= entries.copies
    ? { kind: 'name', name: codeAt(member, value), ...HERE }
    : expr
}

/** Conditions with what they ask of entries and rows written as if asked of one question: what classes of answers have to tell apart. */
export function askedOfEntries(exprs: readonly Expr[], plan: Plan): Expr[] {
  const grids = new Set(plan.questions.filter(q => q.place.node.type === 'grid').map(q => q.place.code))
  if (plan.groups.size === 0 && grids.size === 0) return [...exprs]
  const grid = (e: Expr): string | null =>
    e.kind === 'name' && grids.has(e.name)
      ? e.name
      : e.kind === 'path' && grids.has(e.member)
        ? e.member
        : e.kind === 'filter'
          ? grid(e.of)
          : null
  const member = (code: string): Expr | null =>
    plan.byCode.has(code) ? { kind: 'name', name: code, ...HERE } : null
  const ofRows = (expr: Expr) =>
    replaced(expr, n => {
      const of = n.kind === 'path' ? grid(n.of) : null
      return n.kind === 'path' && of !== null ? { kind: 'name', name: rowCode(of, n.member), ...HERE } : null
    })
  const ofMembers = (expr: Expr, nodes: readonly Expr[]) => {
    const values = new Map(
      nodes.flatMap(n =>
        n.kind === 'quantified' && n.over.kind === 'path' ? [[n.variable, n.over.member] as const] : [],
      ),
    )
    return replaced(expr, n =>
      n.kind === 'path'
        ? member(n.member)
        : n.kind === 'filter' && n.of.kind === 'path'
          ? member(n.of.member)
          : n.kind === 'name' && values.has(n.name)
            ? member(values.get(n.name) ?? '')
            : null,
    )
  }
  return exprs.flatMap(expr => {
    const nodes = [...nodesOf(expr)]
    return [
      expr,
      ...(nodes.some(n => grid(n) !== null) ? [ofRows(expr)] : []),
      ...(nodes.some(n => n.kind === 'name' && plan.groups.has(n.name)) ? [ofMembers(expr, nodes)] : []),
    ]
  })
}
