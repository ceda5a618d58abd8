import { API } from '../../../../shared/api/endpoints'
import { linkUseOf } from '../../../http/linkUse'
import { openRoute } from '../../../http/route'
import { LARGEST_SENDING } from '../../../services/acceptAnswers'
import { submitAnswers } from '../../../services/submitAnswers'

export default openRoute(
  API.sendAnswers,
  ({ db, event, params, body, caller }) => submitAnswers(db, linkUseOf(event, params.token, caller), body),
  {
    most: LARGEST_SENDING,
  },
)
