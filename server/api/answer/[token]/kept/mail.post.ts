import { API } from '../../../../../shared/api/endpoints'
import { linkUseOf, maskedSourceOf } from '../../../../http/linkUse'
import { openRoute } from '../../../../http/route'
import { mailKept } from '../../../../services/keptAnswers'
import { countTry } from '../../../../services/people/tallies'

export default openRoute(API.mailKept, async ({ db, event, params, body, caller }) => {
  await countTry(db, 'mailKeptBySource', maskedSourceOf(event))
  await mailKept(db, linkUseOf(event, params.token, caller), body.secret, body.to)
  return { done: true } as const
})
