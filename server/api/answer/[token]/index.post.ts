import { API } from '../../../../shared/api/endpoints'
import { openRoute } from '../../../http/route'
import { LARGEST_SENDING } from '../../../services/acceptAnswers'
import { submitAnswers } from '../../../services/submitAnswers'

export default openRoute(
  API.sendAnswers,
  ({ db, params, body, caller }) => submitAnswers(db, { token: params.token, caller }, body),
  {
    most: LARGEST_SENDING,
  },
)
