import type { Form } from '../../form/definition'
import type { PlannedQuestion } from '../../fill/planned'
import type { Answers } from '../../form/answers'
import type { Place } from '../../form/walk'
import { peopleListOf } from '../../parties/actors'
import { nextTurn, turnName } from '../../parties/turns'
import type { Inquiry } from '../goals/inquiry'
import type { PlannedTurn } from '../model/turnPlan'
import type { Finding } from '../finding'
import { type Check, quotedName, finding, partAt } from './check'
import type { Goal } from '../goals/goal'
import { example, section } from './exampleForms'

const kind = { code: 'ungiven-turn', severity: 'fault' } as const
const turned = (required: true | undefined): Form => ({
  ...example(
    section('boat', [
      { kind: 'question', code: 'surveyor', type: 'email', label: 'Your surveyor', required },
    ]),
  ),
  parties: [
    { code: 'owner', name: 'Owner' },
    { code: 'surveyor', name: 'Surveyor' },
  ],
  turns: [
    { code: 'request', party: 'owner', by: 'link', access: { boat: 'fills' } },
    { code: 'survey', party: 'surveyor', by: { answer: 'surveyor' }, access: { boat: 'reads' } },
  ],
})

export const ungivenTurn: Check = {
  ...kind,
  about:
    'A turn goes to whoever an answer names, but that answer may be blank: then it can be given to nobody.',
  raises: turned(undefined),
  spares: turned(true),
  run: inquiry =>
    inquiry.model.turns.flatMap((given): Finding[] => {
      const { by } = given.turn
      const code = typeof by === 'object' && 'answer' in by ? by.answer : null
      const asked = code === null ? undefined : inquiry.model.stepOf(code)
      if (!asked || !namesSomebody(inquiry, asked)) return []
      for (const from of inquiry.model.turns) {
        const goal = blankGoal(inquiry, from, given, asked)
        const witness = goal && inquiry.decide(goal).is === 'possible' ? inquiry.witness(goal) : null
        if (witness) return [blankFinding(inquiry, given, asked.place, witness)]
      }
      return []
    }),
}

/** Whether answers to a question can name who acts. */
const namesSomebody = ({ form }: Inquiry, { place: { node } }: PlannedQuestion): boolean =>
  node.type === 'email' || peopleListOf(form, node) !== null

/** The goal “a turn hands on to one that nobody is named for”; null where it never does. */
function blankGoal(
  { model }: Inquiry,
  from: PlannedTurn,
  to: PlannedTurn,
  { place, slot }: PlannedQuestion,
): Goal | null {
  if (!from.handOffs.some(h => h.to === to.index)) return null
  return {
    key: `given:${from.turn.code}:${to.turn.code}`,
    at: place,
    section: model.plan.sections.length,
    turn: from.index,
    names: [place.code],
    literals: space => [
      space.turns.leadsFrom(from.index).get(to.index) ?? -space.encoding.yes,
      space.encoding.variable(place.code).blank,
    ],
    holds: state =>
      (state.values[slot] ?? null) === null && nextTurn(state, from.turn)?.code === to.turn.code,
  }
}

const blankFinding = ({ form }: Inquiry, { turn }: PlannedTurn, place: Place, witness: Answers): Finding =>
  finding(
    kind,
    place,
    `The turn “${turnName(form, turn)}” goes to whoever ${quotedName(place)} names, but that may be blank: then it can be given to nobody.`,
    { conflict: [partAt(place)], witness },
  )
