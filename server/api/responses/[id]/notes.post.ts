import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { noteResponse } from '../../../services/noteResponse'

export default designerRoute(API.noteResponse, async ({ db, params, body, designer }) => {
  await noteResponse(db, params.id, body, designer.name)
  return { done: true } as const
})
