import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { fileForm } from '../../../services/keepForms'

export default designerRoute(API.fileForm, async ({ db, params, body }) => {
  await fileForm(db, params.id, body)
  return { done: true as const }
})
