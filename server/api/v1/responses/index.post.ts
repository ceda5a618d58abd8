import { API } from '../../../../shared/api/endpoints'
import { bearerOf } from '../../../http/bearer'
import { openRoute } from '../../../http/route'
import { LARGEST_SENDING } from '../../../services/acceptAnswers'
import { useAccessKey } from '../../../services/accessKeys'
import { sendForPrograms } from '../../../services/programs'

export default openRoute(
  API.sendByKey,
  async ({ db, event, body }) => {
    const { formId } = await useAccessKey(db, bearerOf(event), 'send')
    return sendForPrograms(db, formId, body)
  },
  { most: LARGEST_SENDING },
)
