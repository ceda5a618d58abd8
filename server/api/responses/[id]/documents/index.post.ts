import { API } from '../../../../../shared/api/endpoints'
import { designerRoute } from '../../../../http/route'
import { makeByHand } from '../../../../services/documents/documents'

export default designerRoute(API.makeDocument, async ({ db, params, body, designer }) => {
  await makeByHand(db, params.id, body.code, designer.name)
  return { done: true } as const
})
