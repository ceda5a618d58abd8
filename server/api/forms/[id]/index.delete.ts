import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { deleteForm } from '../../../services/keepForms'

export default designerRoute(API.deleteForm, async ({ db, params, query }) => {
  await deleteForm(db, params.id, query.confirmed)
  return { done: true as const }
})
