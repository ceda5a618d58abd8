import { API } from '../../../../shared/api/endpoints'
import { linkUseOf } from '../../../http/linkUse'
import { openRoute } from '../../../http/route'
import { countTry } from '../../../services/people/tallies'
import { LARGEST_SENDING } from '../../../services/acceptAnswers'
import { refetchForm } from '../../../services/respondentPage'

export default openRoute(
  API.refetchForm,
  async ({ db, event, params, body, caller }) => {
    await countTry(db, 'refetchByLink', params.token)
    return refetchForm(db, linkUseOf(event, params.token, caller), body)
  },
  {
    most: LARGEST_SENDING,
  },
)
