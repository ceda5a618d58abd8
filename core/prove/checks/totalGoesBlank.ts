import { mayNotApply } from '../../form/notApplicable'
import { namesIn, nodesOf, type Expr } from '../../expressions/tree'
import { print } from '../../expressions/print'
import type { PlannedQuestion } from '../../fill/planned'
import type { Finding } from '../finding'
import { namesAround } from '../goals/dependencyClosure'
import type { Goal } from '../goals/goal'
import type { Inquiry } from '../goals/inquiry'
import { type Check, finding, lookAtEach, partAt, quotedName } from './check'
import { example, section, text, whole } from './exampleForms'
import { NEVER_IN_PLAY, isOutOfPlay } from './neverInPlay'

const kind = { code: 'total-goes-blank', severity: 'risk' } as const
const budget = (required: true | undefined) =>
  example(
    section('budget', [
      whole('staff'),
      whole('other', { required }),
      { kind: 'question', type: 'value', code: 'total', label: 'Total', value: 'staff + other' },
      text('why_so_much', { shownWhen: 'total > 100' }),
    ]),
  )

export const totalGoesBlank: Check = {
  ...kind,
  needs: NEVER_IN_PLAY,
  about:
    'A total is blank as soon as one of its parts is blank or not asked; rules and checks that compare it then say nothing.',
  raises: budget(undefined),
  spares: budget(true),
  run: inquiry => lookAtEach(inquiry.model.plan.questions, question => ofValue(inquiry, question)),
}

function ofValue(inquiry: Inquiry, question: PlannedQuestion): Finding[] {
  const { place, value } = question
  const parts = value?.expr ? summandsOf(value.expr) : []
  if (parts.length < 2 || place.entryOf !== null || isOutOfPlay(inquiry, question)) return []
  if (!inquiry.model.rules.some(r => r.expr && isComparedIn(r.expr, place.code))) return []
  const steps = parts.flatMap(name => inquiry.model.plan.byCode.get(name) ?? [])
  const blank = blankParts(inquiry, steps)
  if (steps.length < parts.length || blank.size === 0) return []
  const goal = blankGoal(inquiry, question, steps)
  if (inquiry.decide(goal, { aside: true }).is !== 'possible') return []
  const witness = inquiry.witness(goal)
  if (witness === null || !value?.expr) return []
  const mended = print(withZeros(value.expr, blank))
  return [
    finding(
      kind,
      place,
      `${quotedName(place)} is blank as soon as one of its parts is: what compares it then says nothing.`,
      {
        rule: `${place.address}:value`,
        conflict: [partAt(place, 'value'), ...steps.map(s => partAt(s.place))],
        witness,
        mend: {
          words: `Count a blank as nothing: ${mended}`,
          edits: [{ do: 'change', what: place.address, set: { value: mended } }],
        },
      },
    ),
  ]
}

/** The questions that a sum or difference is made of; none of anything else. */
function summandsOf(expr: Expr): string[] {
  if (expr.kind === 'name') return [expr.name]
  if (expr.kind !== 'arithmetic' || (expr.op !== '+' && expr.op !== '-')) return []
  const [left, right] = [summandsOf(expr.left), summandsOf(expr.right)]
  return left.length > 0 && right.length > 0 ? [...left, ...right] : []
}

const isComparedIn = (expr: Expr, code: string): boolean =>
  nodesOf(expr).some(
    n =>
      (n.kind === 'compare' &&
        n.right.kind !== 'null' &&
        [n.left, n.right].some(side => namesIn(side).includes(code))) ||
      (n.kind === 'between' && namesIn(n.value).includes(code)),
  )

/** The goal “the total is blank though one of its parts is answered, and all that has to be”. */
const blankGoal = ({ model }: Inquiry, total: PlannedQuestion, parts: readonly PlannedQuestion[]): Goal => ({
  key: `goes-blank:${total.place.address}`,
  at: total.place,
  section: total.place.section,
  names: [total.place.code, ...parts.map(p => p.place.code), ...namesAround(model, total)],
  literals: space => [
    space.inPlay(total),
    space.encoding.variable(total.place.code).blank,
    space.encoding.or(parts.map(p => -space.encoding.variable(p.place.code).blank)),
  ],
  answered: true,
  holds: state =>
    state.inPlay[total.place.order] === true &&
    (state.values[total.slot] ?? null) === null &&
    parts.some(p => (state.values[p.slot] ?? null) !== null) &&
    parts.every(
      p =>
        state.required[p.slot] !== true ||
        mayNotApply(p.place.node) ||
        (state.values[p.slot] ?? null) !== null,
    ),
})

/** The parts that may be blank: not always asked, or not required. */
const blankParts = ({ model }: Inquiry, parts: readonly PlannedQuestion[]): Set<string> =>
  new Set(
    parts
      .filter(
        p =>
          p.required !== true ||
          p.shown !== null ||
          p.skips.length > 0 ||
          p.parent >= 0 ||
          model.sectionOf(p)?.shown !== null,
      )
      .map(p => p.place.code),
  )

function withZeros(expr: Expr, blank: ReadonlySet<string>): Expr {
  const here = { from: expr.from, to: expr.to }
  if (expr.kind === 'name' && blank.has(expr.name))
    return {
      kind: 'if',
      test: { kind: 'compare', op: '=', left: expr, right: { kind: 'null', ...here }, ...here },
      then: { kind: 'number', value: 0, ...here },
      else: expr,
      ...here,
    }
  if (expr.kind !== 'arithmetic') return expr
  return { ...expr, left: withZeros(expr.left, blank), right: withZeros(expr.right, blank) }
}
