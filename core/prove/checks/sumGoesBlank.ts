import { compile } from '../../expressions/compile'
import { parseCached } from '../../expressions/parse'
import { print } from '../../expressions/print'
import { namesIn, nodesOf, type Expr, type ExprOf } from '../../expressions/tree'
import { replaceParts } from '../../expressions/replace'
import { withRule } from '../../form/rules'
import type { PlannedQuestion } from '../../fill/planned'
import type { Item } from '../../form/definition'
import type { Finding } from '../finding'
import type { Goal } from '../goals/goal'
import type { Inquiry } from '../goals/inquiry'
import type { Model } from '../model/model'
import type { ReadRule } from '../model/readRule'
import { HERE } from '../model/rewritten'
import { type Check, finding, lookAtEach, partAt, quotedName } from './check'
import { example, section, text, whole } from './exampleForms'
import { isOutOfPlay, NEVER_IN_PLAY } from './neverInPlay'

const kind = { code: 'sum-goes-blank', severity: 'risk' } as const
const menu = (price: Item) =>
  example(
    section('menu', [
      {
        kind: 'group',
        code: 'courses',
        title: 'Courses',
        repeat: { min: 1, max: 3 },
        items: [text('dish', { required: true }), price],
      },
      { kind: 'note', code: 'dear', text: 'We ask for a deposit.', shownWhen: 'sum(courses.price) > 100' },
    ]),
  )

export const sumGoesBlank: Check = {
  ...kind,
  needs: NEVER_IN_PLAY,
  about:
    'What is added up or compared over entries is blank as soon as it is blank in one of them: a threshold then says nothing.',
  raises: menu(whole('price', { required: undefined, min: 0 })),
  spares: menu(whole('price', { min: 0 })),
  run: inquiry => lookAtEach(inquiry.model.rules, rule => ofRule(inquiry, rule)),
}

const AGGREGATES: ReadonlySet<string> = new Set(['sum', 'mean', 'min', 'max'])

/** `sum(courses.price)`: the call, the group, and what is added up. */
interface Aggregate {
  call: ExprOf<'call'>
  path: ExprOf<'path'>
  group: string
  part: PlannedQuestion
}

function ofRule(inquiry: Inquiry, rule: ReadRule): Finding[] {
  const { model } = inquiry
  if (!rule.expr || isOutOfPlay(inquiry, rule) || !isUsed(inquiry, rule)) return []
  return aggregatesIn(inquiry, rule.expr).flatMap((aggregate): Finding[] => {
    const { call, path, group, part } = aggregate
    const goal = blankGoal(inquiry, rule, aggregate)
    if (inquiry.decide(goal, { aside: true }).is !== 'possible') return []
    const witness = inquiry.witness(goal)
    if (witness === null || !rule.expr) return []
    const { code } = part.place
    const filtered = parseCached(`${group}[${code} != null].${code}`)
    const mended = print(replaceParts(rule.expr, node => (node === path ? filtered : null)))
    const place = model.plan.groups.get(group)?.place ?? rule.place
    return [
      finding(
        kind,
        rule.place,
        `In a rule of ${quotedName(rule.place)}, ${print(call)} is blank as soon as ${quotedName(part.place)} is in one entry of ${quotedName(place)}: what compares it then says nothing.`,
        {
          rule: rule.id,
          conflict:
            rule.kind === 'promise'
              ? [partAt(part.place)]
              : [partAt(rule.place, rule.kind, rule.index), partAt(part.place)],
          witness,
          mend: {
            words: `Leave out what is blank: ${mended}`,
            edits: [withRule(inquiry.form, rule, mended)],
          },
        },
      ),
    ]
  })
}

/** Whether it matters that the rule is blank: it compares something, or others compare what it works out. */
function isUsed(inquiry: Inquiry, { kind: ruled, expr, place }: ReadRule): boolean {
  if (!expr || ruled === 'promise') return false
  return ruled === 'value' ? comparedIn(inquiry.model).has(place.code) : comparisonsIn(expr).length > 0
}

const comparisonsIn = (expr: Expr): Expr[] =>
  nodesOf(expr).filter(n => n.kind === 'compare' && n.right.kind !== 'null')

const COMPARED = new WeakMap<Model, ReadonlySet<string>>()

/** The codes that rules of a form compare with something. */
function comparedIn(model: Model): ReadonlySet<string> {
  const known = COMPARED.get(model)
  if (known) return known
  const found = new Set(model.rules.flatMap(r => (r.expr ? comparisonsIn(r.expr).flatMap(namesIn) : [])))
  COMPARED.set(model, found)
  return found
}

function aggregatesIn({ model: { plan } }: Inquiry, expr: Expr): Aggregate[] {
  return nodesOf(expr).flatMap((call): Aggregate[] => {
    if (call.kind !== 'call' || !AGGREGATES.has(call.name)) return []
    const [path] = call.args
    if (path?.kind !== 'path' || path.of.kind !== 'name') return []
    const group = path.of.name
    const part = plan.byCode.get(path.member)
    const isInside = part?.place.entryOf?.code === group
    return part && isInside && mayBeBlank(part) ? [{ call, path, group, part }] : []
  })
}

/** A part of an entry that is not always asked or not required. */
const mayBeBlank = ({ required, shown, value, default: begins }: PlannedQuestion): boolean =>
  value === null && begins === null && (required !== true || shown !== null)

/** The goal “it is blank though some entry has what is added up, and all that has to be answered is”. */
function blankGoal({ model }: Inquiry, rule: ReadRule, { call, group, part }: Aggregate): Goal {
  const { code } = part.place
  const isBlank: Expr = { kind: 'compare', op: '=', left: call, right: { kind: 'null', ...HERE }, ...HERE }
  const hasSome = parseCached(`count(${group}[${code} != null]) > 0`)
  const conditions = [isBlank, hasSome]
  const run = conditions.map(e => compile(e, model.plan.environment))
  const { place } = rule
  return {
    key: `sum-blank:${rule.id}:${print(call)}`,
    at: place,
    section: place.section,
    names: [group, ...namesIn(call)],
    literals: space => [space.sectionShown(place.section), ...conditions.map(e => space.encoding.truth(e).t)],
    answered: true,
    holds: state => run.every(r => r(state.values) === true),
  }
}
