import { API } from '../../../../../shared/api/endpoints'
import { designerRoute } from '../../../../http/route'
import { deleteView } from '../../../../services/workbench'

export default designerRoute(API.deleteView, async ({ db, params, designer }) => {
  await deleteView(db, params.id, designer.id, params.view)
  return { done: true } as const
})
