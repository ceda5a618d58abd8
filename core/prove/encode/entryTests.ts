import type { Expr, ExprOf } from '../../expressions/tree'
import { codeAt } from '../model/entryCodes'
import { ofValue, ofVariable, type Source } from '../model/entryExpressions'
import { HERE } from '../model/rewritten'
import type { Encoder, Truth } from './encoder'
import type { EntrySources } from './entrySources'
import type { FurtherEntries } from './furtherEntries'
import type { GroupEntries } from './groupEntries'

/**
 * Conditions about the entries of a repeating group from outside of it: `some`, `every`, `any`, `all`, `list contains`. Some entries are told
 * apart, each with answers of its own. Where they are not enough (see `entries.ts`), what further ones hold is anything: what is impossible
 * then stays a proof. An example is looked for among those in which each of the further ones is like one that is told apart, and replayed.
 */
export class EntryTests {
  constructor(
    private readonly encoder: Encoder,
    private readonly groups: GroupEntries,
    private readonly further: FurtherEntries,
    private readonly sources: EntrySources,
  ) {}

  /** `some … satisfies`, `every … satisfies`. */
  quantified = (expr: ExprOf<'quantified'>): Truth | null =>
    this.sources.once('truth', expr, () => this.quantify(expr))

  private quantify({ mode, variable, over, satisfies }: ExprOf<'quantified'>): Truth | null {
    const found = this.sources.listed(over)
    if (!found) return null
    const { source, member } = found
    const { group } = source.entries
    const body = (entry: number): Expr =>
      member === null
        ? ofVariable(satisfies, variable, group, entry)
        : ofValue(satisfies, variable, codeAt(member, entry))
    return this.overAll(source, mode === 'some', entry => this.encoder.truth(body(entry)))
  }

  /** `list contains(guests.meal, "fish")`, `any(guests.pays)`, `all(guests.pays)`. */
  call = (expr: ExprOf<'call'>): Truth | null => this.sources.once('truth', expr, () => this.test(expr))

  private test({ name, args: [list, element] }: ExprOf<'call'>): Truth | null {
    const found = list ? this.sources.listed(list) : null
    if (!found || found.member === null) return null
    const { source, member } = found
    const answer = (entry: number): Expr => ({ kind: 'name', name: codeAt(member, entry), ...HERE })
    if (name === 'list contains' && element)
      return this.overAll(source, true, entry =>
        this.encoder.truth({ kind: 'compare', op: '=', left: answer(entry), right: element, ...HERE }),
      )
    return name === 'any' || name === 'all'
      ? this.overAll(source, name === 'any', entry => this.encoder.truth(answer(entry)))
      : null
  }

  /** Whether some of the entries asked for fulfil something, or all of them do. */
  private overAll(source: Source, some: boolean, truth: (entry: number) => Truth): Truth {
    const { and, or, solver } = this.encoder
    const { blank } = this.groups.of(source.entries)
    const more = this.sources.unknown(source.entries)
    const chosen = this.sources.chosen(source)
    // “Every” is “not some not”.
    const truths = chosen.map((_, i) => truth(i + 1)).map(({ t, f }) => (some ? { t, f } : { t: f, f: t }))
    const holding = truths.map(({ t }, i) => and([chosen[i] ?? blank, t]))
    const failing = truths.map(({ f }, i) => or([-(chosen[i] ?? blank), f]))
    if (more !== null) {
      const rest = this.encoder.anything()
      holding.push(and([more, rest.t]))
      failing.push(or([-more, rest.f]))
      solver.addClause([-this.further.alikeLiteral, -more, -rest.t, ...holding.slice(0, chosen.length)])
      solver.addClause([
        -this.further.alikeLiteral,
        -more,
        rest.f,
        ...failing.slice(0, chosen.length).map(l => -l),
      ])
    }
    const [t, f] = [and([-blank, or(holding)]), and([-blank, ...failing])]
    return some ? { t, f } : { t: f, f: t }
  }
}
