import { API } from '../../../../../shared/api/endpoints'
import { linkUseOf, maskedSourceOf } from '../../../../http/linkUse'
import { openRoute } from '../../../../http/route'
import { recallAnswers } from '../../../../services/keptAnswers'
import { countTry } from '../../../../services/people/tallies'

export default openRoute(API.recallAnswers, async ({ db, event, params, body, caller }) => {
  await countTry(db, 'recallBySource', maskedSourceOf(event))
  return recallAnswers(db, linkUseOf(event, params.token, caller), body.secret)
})
