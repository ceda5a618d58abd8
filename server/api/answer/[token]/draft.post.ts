import { API } from '../../../../shared/api/endpoints'
import { linkUseOf } from '../../../http/linkUse'
import { openRoute } from '../../../http/route'
import { LARGEST_SENDING } from '../../../services/acceptAnswers'
import { keepTurn } from '../../../services/keepTurn'

export default openRoute(
  API.keepTurn,
  ({ db, event, params, body, caller }) => keepTurn(db, linkUseOf(event, params.token, caller), body),
  {
    most: LARGEST_SENDING,
  },
)
