import { API } from '../../../shared/api/endpoints'
import { designerRoute } from '../../http/route'
import { behave } from '../../stand-ins/receiver'

export default designerRoute(API.tellOutsideWorld, async ({ db, body }) => {
  await behave(db, body)
  return { done: true } as const
})
