import type { Model } from '../model/model'
import { NEVER_IN_PLAY, isFolded, isOutOfPlay } from './neverInPlay'
import { print } from '../../expressions/print'
import { namesIn, type Expr, type ExprOf, type TestNode } from '../../expressions/tree'
import { ruleId, withRule, type RuleKind } from '../../form/rules'
import { namesOfSkips } from '../../fill/steps'
import type { PlannedRule, PlannedSection, PlannedSkip, Step } from '../../fill/planned'
import type { Place } from '../../form/walk'
import type { Finding } from '../finding'
import { namesAround } from '../goals/dependencyClosure'
import type { StateSpace } from '../goals/stateSpace'
import type { Inquiry } from '../goals/inquiry'
import { type Check, quotedName, lookAtEach, finding, partAt } from './check'
import type { Goal } from '../goals/goal'
import type { Literal } from '../solver/literal'
import { example, section, text, whole, yesNo } from './exampleForms'

const kind = { code: 'redundant-part', severity: 'advice' } as const

export const redundantPart: Check = {
  ...kind,
  needs: NEVER_IN_PLAY,
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
    lookAtEach(rulesWithParts(inquiry), rule =>
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

/** The rules of sections, routes, skips and what stands in sections that are made of parts and can be asked for. */
function rulesWithParts(inquiry: Inquiry): Ruled[] {
  const { model } = inquiry
  const inSections = model.plan.sections.flatMap(section => [
    ...ofSection(section),
    ...section.all.filter(step => !isFolded(inquiry, step)).flatMap(step => ofStep(model, step)),
  ])
  const ruled = [...inSections, ...model.plan.skips.flatMap(skip => ofSkip(model, skip))]
  return ruled.filter(({ place, expr }) => {
    const isUsable = !isOutOfPlay(inquiry, { place }) && !model.circular.has(place.code)
    return isUsable && hasParts(expr)
  })
}

function ofSection({ place, shown, routes, exits }: PlannedSection): Ruled[] {
  const own = ruledBy(shown, {
    place,
    kind: 'shownWhen',
    index: 0,
    names: [],
    section: place.section,
    leaving: false,
    around: space => [space.reached(place.section)],
  })
  const leading = routes.flatMap(({ when, index }, i) => {
    const before = routes.slice(0, i)
    return ruledBy(when, {
      place,
      kind: 'route',
      index,
      names: [...before.flatMap(r => (r.when?.expr ? namesIn(r.when.expr) : [])), ...namesOfSkips(exits)],
      section: place.section + 1,
      leaving: true,
      around: space => {
        const taken = space.routesTaken(place.section).slice(0, i)
        const skipped = exits.map(exit => space.skipTaken(exit))
        return [space.sectionShown(place.section), ...[...taken, ...skipped].map(l => -l)]
      },
    })
  })
  return [...own, ...leading]
}

function ofStep(model: Model, step: Step): Ruled[] {
  const { place } = step
  const common = {
    place,
    index: 0,
    names: namesAround(model, step),
    section: place.section,
    leaving: false,
  }
  const shown = ruledBy(step.shown, {
    ...common,
    kind: 'shownWhen',
    around: space => [space.aroundShown(step)],
  })
  if (!('required' in step) || step.required === true) return shown
  const required = ruledBy(step.required, {
    ...common,
    kind: 'required',
    around: space => [space.inPlay(step)],
  })
  return [...shown, ...required]
}

function ofSkip(model: Model, skip: PlannedSkip): Ruled[] {
  const from = model.stepAt(skip.from.order)
  if (!from) return []
  return ruledBy(skip.when, {
    place: skip.from,
    kind: 'skip',
    index: skip.index,
    names: [...namesAround(model, from), ...namesOfSkips(skip.above)],
    section: skip.from.section,
    leaving: false,
    around: space => [space.inPlay(from), ...skip.above.map(s => -space.skipTaken(s))],
  })
}

/** A rule with the question that is asked about it; none where it can't be used. */
const ruledBy = (rule: PlannedRule | null, about: Omit<Ruled, 'expr'>): Ruled[] =>
  rule?.expr ? [{ ...about, expr: rule.expr, names: [...about.names, ...namesIn(rule.expr)] }] : []

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
    inquiry.decide(difference(rule, without(gone)), { aside: true, onlyProof: true }).is === 'impossible'
  // What is said for who reads it, that something is answered or why it is asked, is no slip.
  const isSaid = (part: TestNode) => isAnswered(part) || asksAnyway(inquiry, part, parts)
  const idle = parts.flatMap((part, i) => (!isSaid(part) && changesNothing([i]) ? [i] : []))
  if (idle.length === 0) return []
  const words = idle.map(i => `“${partText(parts[i])}”`)
  const all = idle.length > 1 && changesNothing(idle)
  const told = idleWords(words, all)
  const place = rule.place
  const mended = print(without(all ? idle : idle.slice(0, 1)))
  return [
    finding(kind, place, `In the rule of ${quotedName(place)}, ${told}: the rule does the same without it.`, {
      rule: ruleId(place, rule.kind, rule.index),
      conflict: [partAt(place, rule.kind, rule.index)],
      mend: { words: `Write ${mended}`, edits: [withRule(inquiry.form, rule, mended)] },
    }),
  ]
}

/** That parts change nothing: the only one, all of them, or any one of them. */
function idleWords(words: readonly string[], all: boolean): string {
  if (words.length === 1) return `${words[0]} changes nothing`
  return all ? `${words.join(' and ')} change nothing` : `one of ${words.join(', ')} changes nothing`
}

/** Whether a part only repeats when a question of another part is asked. */
const asksAnyway = ({ model }: Inquiry, part: TestNode, parts: readonly TestNode[]): boolean =>
  parts.some(other => {
    if (other === part || other.kind === 'range' || other.kind === 'unaryTest') return false
    const rules = namesIn(other).flatMap(name => model.plan.byCode.get(name)?.shown?.expr ?? [])
    return rules.some(rule => print(rule) === partText(part))
  })

const isAnswered = (part: TestNode): boolean =>
  part.kind === 'compare' && part.op === '!=' && part.left.kind === 'name' && part.right.kind === 'null'

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
