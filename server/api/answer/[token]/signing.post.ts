import { API } from '../../../../shared/api/endpoints'
import { linkUseOf } from '../../../http/linkUse'
import { openRoute } from '../../../http/route'
import { readToSign } from '../../../services/documents/readToSign'

export default openRoute(API.readToSign, ({ db, event, params, body, caller }) =>
  readToSign(db, linkUseOf(event, params.token, caller), body),
)
