import { API } from '../../../../shared/api/endpoints'
import { openRoute } from '../../../http/route'
import { LARGEST_SENDING } from '../../../services/acceptAnswers'
import { refetchForm } from '../../../services/respondentPage'

export default openRoute(API.refetchForm, ({ db, params, body }) => refetchForm(db, params.token, body), {
  most: LARGEST_SENDING,
})
