import { API } from '../../../../shared/api/endpoints'
import { linkUseOf } from '../../../http/linkUse'
import { openRoute } from '../../../http/route'
import { countTry } from '../../../services/people/tallies'
import { LARGEST_SENDING } from '../../../services/acceptAnswers'
import { findOfferedRows } from '../../../services/rowSearch'

export default openRoute(
  API.searchRows,
  async ({ db, event, params, body, caller }) => {
    await countTry(db, 'searchByLink', params.token)
    return findOfferedRows(db, linkUseOf(event, params.token, caller), body)
  },
  {
    most: LARGEST_SENDING,
  },
)
