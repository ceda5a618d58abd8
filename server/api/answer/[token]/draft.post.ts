import { API } from '../../../../shared/api/endpoints'
import { openRoute } from '../../../http/route'
import { LARGEST_SENDING } from '../../../services/acceptAnswers'
import { keepTurn } from '../../../services/keepTurn'

export default openRoute(
  API.keepTurn,
  ({ db, params, body, caller }) => keepTurn(db, { token: params.token, caller }, body),
  {
    most: LARGEST_SENDING,
  },
)
