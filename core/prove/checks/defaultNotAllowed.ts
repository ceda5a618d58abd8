import { nodesOf } from '../../expressions/tree'
import type { PlannedQuestion } from '../../fill/planned'
import type { Finding } from '../finding'
import { constantValue } from '../model/asked'
import { isPossible } from '../model/sampleAnswers'
import { type Check, finding, partAt, quotedName } from './check'
import { example, section, whole } from './exampleForms'

const kind = { code: 'default-not-allowed', severity: 'risk' } as const
const beginning = (begins: string) =>
  example(section('boat', [whole('crew', { min: 1, max: 5, default: begins })]))

export const defaultNotAllowed: Check = {
  ...kind,
  about:
    'A question begins with an answer that its own limits refuse, that is not on offer, or that can’t be worked out.',
  raises: beginning('9'),
  spares: beginning('2'),
  run: ({ model: { plan } }) =>
    plan.questions.flatMap((question): Finding[] => {
      const reason = reasonOf(question)
      const { place } = question
      return reason === null
        ? []
        : [
            finding(kind, place, `${quotedName(place)} begins with ${reason}.`, {
              rule: `${place.address}:default`,
              conflict: [partAt(place, 'default')],
              mend: {
                words: 'Take the default away',
                edits: [{ do: 'change', what: place.address, set: { default: null } }],
              },
            }),
          ]
    }),
}

function reasonOf(question: PlannedQuestion): string | null {
  const expr = question.default?.expr
  if (!expr || question.place.node.type === 'hidden') return null
  const dividesByZero = nodesOf(expr).some(
    n => n.kind === 'arithmetic' && n.op === '/' && n.right.kind === 'number' && n.right.value === 0,
  )
  if (dividesByZero) return 'a division by zero, which gives nothing'
  const value = expr.kind === 'boolean' ? expr.value : constantValue(expr)
  if (value === undefined || value === null || isPossible(value, question)) return null
  return question.offer ? 'a choice that is not on offer' : 'an answer that its own limits refuse'
}
