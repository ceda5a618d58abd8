import { print } from '../../expressions/print'
import { namesIn, type Expr, type ExprOf, type TestNode } from '../../expressions/tree'
import { ruleId, withRule, type RuleKind } from '../../form/rules'
import type { PlannedRule } from '../../fill/planned'
import type { Place } from '../../form/walk'
import type { Finding } from '../finding'
import { namesAround } from '../goals/dependencyClosure'
import type { StateSpace } from '../goals/stateSpace'
import { called, each, finding, partAt, type Check, type Goal, type Inquiry } from '../goals/inquiry'
import type { Literal } from '../solver/literal'
import { example, section, text, whole, yesNo } from './exampleForms'

const kind = { code: 'redundant-part', severity: 'advice' } as const

export const redundantPart: Check = {
  ...kind,
  about:
    'A part of a condition changes nothing: with or without it the rule does the same, seen together with the rules around it.',
  raises: example(section('crew', [whole('age'), text('guardian', { shownWhen: 'age < 18 and age < 21' })])),
  spares: example(
    section('crew', [
      whole('age'),
      yesNo('alone'),
      text('guardian', { shownWhen: 'age < 18 and alone = true' }),
    ]),
  ),
  run: inquiry =>
    each(rulesWithParts(inquiry), rule =>
      junctions(rule.expr, e => e).flatMap(at => redundant(inquiry, rule, at)),
    ),
}

interface Ruled {
  place: Place
  kind: RuleKind
  index: number
  expr: Expr
  names: readonly string[]
  section: number
  leaving: boolean
  around: (space: StateSpace) => Literal[]
}

function rulesWithParts(inquiry: Inquiry): Ruled[] {
  const { model } = inquiry
  const usable = (place: Place) =>
    !inquiry.impossible.has(place.order) &&
    !inquiry.impossible.has(inquiry.orderOfSection(place.section)) &&
    !model.circular.has(place.code)
  const make = (
    place: Place,
    kind: RuleKind,
    index: number,
    rule: PlannedRule | null,
    names: readonly string[],
    around: (space: StateSpace) => Literal[],
    leaving = false,
  ): Ruled[] =>
    rule?.expr && usable(place) && hasParts(rule.expr)
      ? [
          {
            place,
            kind,
            index,
            expr: rule.expr,
            names: [...names, ...namesIn(rule.expr)],
            section: place.section + (leaving ? 1 : 0),
            leaving,
            around,
          },
        ]
      : []
  return model.plan.sections.flatMap(s => [
    ...make(s.place, 'shownWhen', 0, s.shown, [], space => [space.reached(s.place.section)]),
    ...s.routes.flatMap((route, i) =>
      make(
        s.place,
        'route',
        route.index,
        route.when,
        s.routes.slice(0, i).flatMap(r => (r.when?.expr ? namesIn(r.when.expr) : [])),
        space => [
          space.sectionShown(s.place.section),
          ...space
            .routesTaken(s.place.section)
            .slice(0, i)
            .map(l => -l),
        ],
        true,
      ),
    ),
    ...s.all
      .filter(step => !inquiry.isFolded(step))
      .flatMap(step => [
        ...make(step.place, 'shownWhen', 0, step.shown, namesAround(model, step), space => [
          space.aroundShown(step),
        ]),
        ...('required' in step && step.required !== true
          ? make(step.place, 'required', 0, step.required, namesAround(model, step), space => [
              space.inPlay(step),
            ])
          : []),
      ]),
  ])
}

const hasParts = (expr: Expr): boolean =>
  expr.kind === 'and' || expr.kind === 'or' || isListed(expr) || (expr.kind === 'not' && hasParts(expr.value))
/** `hull in ["wood", "steel"]`: one of several. */
const isListed = (expr: Expr): expr is ExprOf<'in'> =>
  expr.kind === 'in' && !expr.bare && expr.tests.length > 1

/** Something made of parts inside a condition, and how the whole looks with another in its place. */
interface Junction {
  parts: readonly TestNode[]
  shorter: (parts: readonly TestNode[]) => Expr
  within: (other: Expr) => Expr
}

function junctions(expr: Expr, within: (other: Expr) => Expr): Junction[] {
  if (isListed(expr))
    return [{ parts: expr.tests, within, shorter: tests => ({ ...expr, tests: [...tests] }) }]
  if (expr.kind === 'not') return junctions(expr.value, other => within({ ...expr, value: other }))
  if (expr.kind !== 'and' && expr.kind !== 'or') return []
  const parts = expr.parts
  const shorter = (kept: readonly TestNode[]): Expr => {
    const left = parts.filter(p => kept.includes(p))
    const [only] = left
    return only !== undefined && left.length === 1 ? only : { ...expr, parts: left }
  }
  return [
    { parts, within, shorter },
    ...expr.parts.flatMap((part, i) =>
      junctions(part, other => within({ ...expr, parts: expr.parts.map((p, j) => (j === i ? other : p)) })),
    ),
  ]
}

function redundant(inquiry: Inquiry, rule: Ruled, { parts, shorter, within }: Junction): Finding[] {
  const without = (gone: readonly number[]): Expr =>
    within(shorter(parts.filter((_, i) => !gone.includes(i))))
  const changesNothing = (gone: readonly number[]) =>
    gone.length < parts.length &&
    inquiry.decide(difference(rule, without(gone)), { aside: true }).is === 'impossible'
  const idle = parts.flatMap((_, i) => (changesNothing([i]) ? [i] : []))
  if (idle.length === 0) return []
  const words = idle.map(i => `“${partText(parts[i])}”`)
  const all = idle.length > 1 && changesNothing(idle)
  const told =
    idle.length === 1
      ? `${words[0]} changes nothing`
      : all
        ? `${words.join(' and ')} change nothing`
        : `one of ${words.join(', ')} changes nothing`
  const place = rule.place
  const mended = print(without(all ? idle : idle.slice(0, 1)))
  return [
    finding(kind, place, `In the rule of ${called(place)}, ${told}: the rule does the same without it.`, {
      rule: ruleId(place, rule.kind, rule.index),
      conflict: [partAt(place, rule.kind, rule.index)],
      mend: { words: `Write ${mended}`, edits: [withRule(inquiry.form, rule, mended)] },
    }),
  ]
}

const partText = (part: TestNode | undefined): string =>
  part === undefined || part.kind === 'range' || part.kind === 'unaryTest' ? 'a part of it' : print(part)

/** The goal: the rule and its shorter form turn out differently. */
function difference(
  { place, kind, index, section, leaving, names, expr, around }: Ruled,
  shorter: Expr,
): Goal {
  return {
    key: `part:${place.address}:${kind}:${index}:${print(expr)}:${print(shorter)}`,
    at: place,
    section,
    leaving,
    names,
    literals: space => {
      const [a, b] = [space.encoding.truth(expr).t, space.encoding.truth(shorter).t]
      return [...around(space), space.encoding.or([space.encoding.and([a, -b]), space.encoding.and([-a, b])])]
    },
    // Never replayed for an advice: without a proof nothing is said.
    holds: () => false,
  }
}
