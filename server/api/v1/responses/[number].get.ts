import { API } from '../../../../shared/api/endpoints'
import { bearerOf } from '../../../http/bearer'
import { openRoute } from '../../../http/route'
import { useAccessKey } from '../../../services/accessKeys'
import { loadForPrograms } from '../../../services/programs'

export default openRoute(API.loadByKey, async ({ db, event, params }) => {
  const { formId } = await useAccessKey(db, bearerOf(event), 'read')
  return loadForPrograms(db, formId, params.number)
})
