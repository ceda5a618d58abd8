import { API } from '../../../../../shared/api/endpoints'
import { linkUseOf, maskedSourceOf } from '../../../../http/linkUse'
import { openRoute } from '../../../../http/route'
import { LARGEST_SENDING } from '../../../../services/acceptAnswers'
import { keepAnswers } from '../../../../services/keptAnswers'
import { countTry } from '../../../../services/people/tallies'

export default openRoute(
  API.keepAnswers,
  async ({ db, event, params, body, caller }) => {
    await countTry(db, 'keepBySource', maskedSourceOf(event))
    return keepAnswers(db, linkUseOf(event, params.token, caller), body)
  },
  { most: LARGEST_SENDING },
)
