import { namesIn, nodesOf, type Expr } from '../../expressions/tree'
import type { PlannedQuestion, PlannedRule, PlannedSection, Step } from '../../fill/planned'
import type { Finding } from '../finding'
import type { Goal } from '../goals/goal'
import type { Inquiry } from '../goals/inquiry'
import { type Check, finding, lookAtEach, partAt, quotedName } from './check'
import { example, section, text, yesNo } from './exampleForms'
import { NEVER_IN_PLAY, isOutOfPlay } from './neverInPlay'

const kind = { code: 'blank-as-yes', severity: 'risk' } as const
const smoking = (required: true | undefined) =>
  example(section('crew', [yesNo('smokes', { required }), text('what', { shownWhen: 'smokes != false' })]))

export const blankAsYes: Check = {
  ...kind,
  needs: NEVER_IN_PLAY,
  about: '“Not no” where yes is meant: a question that may be left blank counts as yes.',
  raises: smoking(undefined),
  spares: smoking(true),
  run: inquiry =>
    lookAtEach(
      inquiry.model.plan.sections.flatMap((s): (Step | PlannedSection)[] => [s, ...s.all]),
      step => ofStep(inquiry, step),
    ),
}

function ofStep(inquiry: Inquiry, step: Step | PlannedSection): Finding[] {
  const { shown, place } = step
  if (!shown?.expr || !('is' in step) || isOutOfPlay(inquiry, step)) return []
  return notNoOf(shown.expr).flatMap((name): Finding[] => {
    const asked = inquiry.model.plan.byCode.get(name)
    if (asked?.place.node.type !== 'yesNo' || saysBlank(shown.expr, name)) return []
    const goal = blankGoal(step, asked, shown)
    if (inquiry.decide(goal, { aside: true }).is !== 'possible') return []
    const witness = inquiry.witness(goal)
    if (witness === null) return []
    const sentence = `${quotedName(place)} is shown unless ${quotedName(asked.place)} is no: left blank, it counts as yes.`
    return [
      finding(kind, place, sentence, {
        rule: `${place.address}:shownWhen`,
        conflict: [partAt(place, 'shownWhen'), partAt(asked.place)],
        witness,
      }),
    ]
  })
}

/** The questions of which an expression says that they are not no. */
const notNoOf = (expr: Expr): string[] =>
  nodesOf(expr).flatMap(node => {
    const inner =
      node.kind === 'not' && node.value.kind === 'compare' && node.value.op === '=' ? node.value : null
    const test = inner ?? (node.kind === 'compare' && node.op === '!=' ? node : null)
    if (test?.left.kind !== 'name' || test.right.kind !== 'boolean' || test.right.value) return []
    return [test.left.name]
  })

/** Whether a rule speaks of the blank itself. */
const saysBlank = (expr: Expr | null, name: string): boolean =>
  expr !== null &&
  nodesOf(expr).some(
    n => n.kind === 'compare' && n.left.kind === 'name' && n.left.name === name && n.right.kind === 'null',
  )

const blankGoal = (step: Step, { place: asked, slot }: PlannedQuestion, shown: PlannedRule): Goal => ({
  key: `blank-as-yes:${step.place.address}:${asked.code}`,
  at: step.place,
  section: step.place.section,
  names: shown.expr ? namesIn(shown.expr) : [],
  literals: space => [space.inPlay(step), space.encoding.variable(asked.code).blank],
  answered: true,
  isExact: true,
  holds: state => state.inPlay[step.place.order] === true && (state.values[slot] ?? null) === null,
})
