import { API } from '../../../../shared/api/endpoints'
import { bearerOf } from '../../../http/bearer'
import { openRoute } from '../../../http/route'
import { useAccessKey } from '../../../services/accessKeys'
import { listForPrograms } from '../../../services/programs'

export default openRoute(API.listByKey, async ({ db, event, query }) => {
  const { formId } = await useAccessKey(db, bearerOf(event), 'read')
  return listForPrograms(db, formId, query)
})
