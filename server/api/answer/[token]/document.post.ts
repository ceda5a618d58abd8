import { API } from '../../../../shared/api/endpoints'
import { linkUseOf } from '../../../http/linkUse'
import { openRoute } from '../../../http/route'
import { fetchOffered } from '../../../services/documents/fetchOffered'

export default openRoute(API.fetchDocument, ({ db, event, params, body, caller }) =>
  fetchOffered(db, linkUseOf(event, params.token, caller), body),
)
