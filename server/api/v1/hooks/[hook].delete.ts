import { API } from '../../../../shared/api/endpoints'
import { bearerOf } from '../../../http/bearer'
import { openRoute } from '../../../http/route'
import { useAccessKey } from '../../../services/accessKeys'
import { removeHook } from '../../../services/deliveries/programHooks'

export default openRoute(API.removeHookByKey, async ({ db, event, params }) => {
  const key = await useAccessKey(db, bearerOf(event), 'read')
  await removeHook(db, key, params.hook)
  return { done: true } as const
})
