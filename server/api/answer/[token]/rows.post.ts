import { API } from '../../../../shared/api/endpoints'
import { openRoute } from '../../../http/route'
import { LARGEST_SENDING } from '../../../services/acceptAnswers'
import { findOfferedRows } from '../../../services/rowSearch'

export default openRoute(API.searchRows, ({ db, params, body }) => findOfferedRows(db, params.token, body), {
  most: LARGEST_SENDING,
})
