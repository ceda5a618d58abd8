import { parseEntryCode, rowCode, codeAt, STRIDE } from './entryCodes'
import { type Entries, askedOfGroups, entriesOf, membersOf } from './groupQuestions'
import { compile } from '../../expressions/compile'
import type { Compiled, Environment } from '../../expressions/compiled'
import { nodesOf, type Expr } from '../../expressions/tree'
import type { Value, ValueType } from '../../expressions/types'
import { replaceParts } from '../../expressions/replace'
import type {
  PlannedSkip,
  Plan,
  PlannedCheck,
  PlannedGroup,
  PlannedOffer,
  PlannedQuestion,
  PlannedRule,
  Step,
} from '../../fill/planned'
import { readerOf } from '../../fill/readers'
import { isQuestion, isRepeating } from '../../fill/steps'
import { CURRENCY_MEMBER } from '../../form/currencies'
import { isParted, partsAsked, partsOf, questionOfPart } from './parts'

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
    for (const [group, asked] of askedOfGroups(plan, expressions))
      this.of.set(group.place.code, entriesOf(group, asked))
    this.noteRows(expressions)
    this.environment = {
      slotOf: name => this.slotOf(name),
      memberOf: (name, member) => this.memberOf(name, member),
    }
  }

  /** Notes which rows of grids and amounts rules ask for one by one, and of which grids they ask for the points. */
  private noteRows(expressions: readonly Expr[]) {
    const asked = new Map<string, Set<string>>()
    for (const nodes of expressions.map(nodesOf)) {
      const reached = nodes.flatMap(n => (n.kind === 'path' ? [n.member] : []))
      const named = nodes.flatMap(n => (n.kind === 'name' ? [n.name] : []))
      for (const code of [...named, ...reached]) {
        if (!isParted(this.plan.byCode.get(code)?.place.node)) continue
        asked.set(code, new Set([...(asked.get(code) ?? []), ...reached]))
      }
    }
    for (const [code, members] of asked) this.noteGrid(code, members)
  }

  private noteGrid(code: string, members: ReadonlySet<string>) {
    const node = this.plan.byCode.get(code)?.place.node
    if (!isParted(node)) return
    const isCounted = node.type === 'grid' && members.has('points')
    if (isCounted) this.counted.add(code)
    this.rows.set(code, isCounted ? partsOf(node) : partsAsked(node, members))
  }

  /** How many values a response has, with those of the copies. */
  get size(): number {
    return this.plan.size + this.slots.size
  }

  typeOf(code: string): ValueType {
    const { base, grid, row } = parseEntryCode(code)
    if (grid === null) return this.plan.names.typeOf(base)
    const whole = this.plan.names.typeOf(parseEntryCode(grid).base)
    return whole.kind === 'context' ? (whole.members.get(row) ?? whole) : whole
  }

  private slotOf(name: string): number | undefined {
    const { base, entry, grid } = parseEntryCode(name)
    const own = this.plan.environment.slotOf(base)
    if (grid === null && (entry === 1 || own === undefined)) return own
    const known = this.slots.get(name)
    if (known !== undefined) return known
    const slot = this.size
    this.slots.set(name, slot)
    return slot
  }

  private memberOf(name: string, member: string): Compiled | undefined {
    const { base, entry } = parseEntryCode(name)
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
    const { base, entry, grid, row } = parseEntryCode(code)
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

  /** A part of an answer, in play with it: the row of a grid, the amount in one currency. */
  private rowOf(code: string, grid: string, row: string): PlannedQuestion | undefined {
    const whole = this.stepOf(grid)
    const parted = whole?.place.node
    const node = isParted(parted) ? questionOfPart(parted, row, code) : undefined
    if (!whole || !node) return undefined
    const isDemanded = node.type === 'choice'
    const made: PlannedQuestion = {
      ...whole,
      place: { ...whole.place, code, node },
      checks: [],
      value: null,
      offer: null,
      read: readerOf(node),
      ...(isDemanded ? {} : { required: null, said: null }),
    }
    this.steps.set(code, made)
    return made
  }

  /** The rows of a grid that rules ask for one by one. */
  rowsOf(grid: string): readonly string[] {
    if (this.rows.size === 0) return []
    return (this.rows.get(parseEntryCode(grid).base) ?? []).map(row => rowCode(grid, row))
  }

  /** The parts of which every answer matters: rows that are counted, and the currency of an amount, which says where the amount is. */
  toldOneByOne(): readonly string[] {
    const currencies = [...this.rows].flatMap(([code, rows]) =>
      rows.includes(CURRENCY_MEMBER) && !this.counted.has(code) ? [rowCode(code, CURRENCY_MEMBER)] : [],
    )
    return [...[...this.counted].flatMap(grid => this.rowsOf(grid)), ...currencies]
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
      replaceParts(expr, n =>
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
    const skip = (s: PlannedSkip): PlannedSkip => {
      if (s.from.entryOf !== step.place.entryOf) return s
      const from = { ...s.from, code: codeAt(s.from.code, entry), order: s.from.order + add }
      return { ...s, from, when: optional(s.when), above: s.above.map(skip) }
    }
    const common = {
      shown: optional(step.shown),
      skips: step.skips.map(skip),
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
      said: maybe(step.said),
      default: optional(step.default),
      value: optional(step.value),
      offer: offered,
    }
  }
}
