import { API } from '../../../../shared/api/endpoints'
import { linkUseOf } from '../../../http/linkUse'
import { openRoute } from '../../../http/route'
import { LARGEST_SENDING } from '../../../services/acceptAnswers'
import { returnTurn } from '../../../services/returnTurn'

export default openRoute(
  API.returnTurn,
  ({ db, event, params, body, caller }) => returnTurn(db, linkUseOf(event, params.token, caller), body),
  {
    most: LARGEST_SENDING,
  },
)
