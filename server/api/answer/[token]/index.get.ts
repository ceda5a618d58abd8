import { API } from '../../../../shared/api/endpoints'
import { linkUseOf } from '../../../http/linkUse'
import { openRoute } from '../../../http/route'
import { loadRespondentPage } from '../../../services/respondentPage'

export default openRoute(API.openLink, ({ db, event, params, caller }) =>
  loadRespondentPage(db, linkUseOf(event, params.token, caller)),
)
