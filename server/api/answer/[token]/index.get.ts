import { API } from '../../../../shared/api/endpoints'
import { openRoute } from '../../../http/route'
import { loadRespondentPage } from '../../../services/respondentPage'

export default openRoute(API.openLink, ({ db, params, caller }) =>
  loadRespondentPage(db, { token: params.token, caller }),
)
