import { API } from '../../../../shared/api/endpoints'
import { openRoute } from '../../../http/route'
import { LARGEST_SENDING } from '../../../services/acceptAnswers'
import { returnTurn } from '../../../services/returnTurn'

export default openRoute(
  API.returnTurn,
  ({ db, params, body, caller }) => returnTurn(db, { token: params.token, caller }, body),
  {
    most: LARGEST_SENDING,
  },
)
