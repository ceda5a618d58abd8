import { API } from '../../../../shared/api/endpoints'
import { openRoute } from '../../../http/route'
import { countTry } from '../../../services/people/tallies'
import { LARGEST_SENDING } from '../../../services/acceptAnswers'
import { refetchForm } from '../../../services/respondentPage'

export default openRoute(
  API.refetchForm,
  async ({ db, params, body, caller }) => {
    await countTry(db, 'refetchByLink', params.token)
    return refetchForm(db, { token: params.token, caller }, body)
  },
  {
    most: LARGEST_SENDING,
  },
)
