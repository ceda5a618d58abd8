import { API } from '../../../../../shared/api/endpoints'
import { designerRoute } from '../../../../http/route'
import { changeView } from '../../../../services/workbench'

export default designerRoute(API.changeView, async ({ db, params, body, designer }) => {
  await changeView(db, params.id, designer.id, params.view, body)
  return { done: true } as const
})
