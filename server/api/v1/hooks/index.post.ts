import { API } from '../../../../shared/api/endpoints'
import { bearerOf } from '../../../http/bearer'
import { openRoute } from '../../../http/route'
import { useAccessKey } from '../../../services/accessKeys'
import { makeHook } from '../../../services/deliveries/programHooks'

export default openRoute(API.makeHookByKey, async ({ db, event, body }) => {
  const key = await useAccessKey(db, bearerOf(event), 'read')
  return makeHook(db, key, body)
})
