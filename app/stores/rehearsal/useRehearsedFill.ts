import type { Ref } from 'vue'
import { fill } from '#core/fill/fill'
import { planOf } from '#core/fill/plan'
import type { Plan } from '#core/fill/planned'
import { replan } from '#core/fill/replan'
import type { Answers } from '#core/form/answers'
import type { Standing } from '#core/form/standing'
import { useDraft } from '../draft'

/** The draft as it is filled with some answers, as the first response to the next release would be. */
export function useRehearsedFill(answers: Ref<Answers>, today: Ref<string>) {
  const draft = useDraft()
  const link = linkAddress('/f/…')
  const standing = computed<Standing>(() => ({
    release: { number: 1 + Math.max(0, ...draft.releases.map(r => r.number)) },
    response: { number: 1, link },
    workspace: draft.workspace,
  }))
  const plan = computed<Plan | null>(before => {
    if (!draft.form) return null
    return before ? replan(before, draft.form, draft.places) : planOf(draft.form)
  })
  const filled = computed(() =>
    plan.value ? fill(plan.value, answers.value, today.value, standing.value) : null,
  )
  return { standing, plan, filled }
}
