import { API } from '../../../../shared/api/endpoints'
import { openRoute } from '../../../http/route'
import { returnTurn } from '../../../services/returnTurn'

export default openRoute(
  API.returnTurn,
  ({ db, params, body }) => returnTurn(db, params.token, body.remark),
  {
    most: 100_000,
  },
)
