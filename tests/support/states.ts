import { fill, problemsIn, type Filled } from '../../core/fill/fill'
import type { Answer, Answers } from '../../core/form/answers'
import type { Form } from '../../core/form/definition'
import type { Inquiry } from '../../core/prove/goals/inquiry'
import { answersTo, questionsOf } from './forms'

export const TODAY = '2026-11-24'
/** On how many random forms the prover is compared to trying all answers. */
export const RUNS = Number(process.env.PROVE_FORMS ?? 1500)

/** Every state of a form, by the definition: all answers tried, everything before the current section complete. */
export function* states(
  form: Form,
  inquiry: Inquiry,
): Generator<{ section: number; state: Filled; answers: Answers }> {
  const asked = questionsOf(form)
  function* combine(i: number, answers: Readonly<Record<string, Answer>>): Generator<Answers> {
    const next = asked[i]
    if (!next) return yield { ...answers }
    yield* combine(i + 1, answers)
    for (const answer of answersTo(next)) yield* combine(i + 1, { ...answers, [next.code]: answer })
  }
  const { plan } = inquiry.model
  for (const answers of combine(0, {})) {
    const state = fill(plan, answers, TODAY)
    for (const section of state.path) {
      yield { section, state, answers }
      const planned = plan.sections[section]
      if (planned && problemsIn(state, planned).length > 0) break
    }
  }
}
