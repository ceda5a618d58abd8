import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { refuseUnseen } from '../../../http/seen'
import { amendResponse } from '../../../services/amendResponse'
import { keepRecord } from '../../../services/people/record'

export default designerRoute(API.amendResponse, async ({ db, params, body, designer, doer, powers }) => {
  refuseUnseen(powers)
  await amendResponse(db, params.id, body, designer.name)
  await keepRecord(db, doer, 'response corrected', { details: { response: params.id } })
  return { done: true } as const
})
