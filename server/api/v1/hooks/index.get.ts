import { API } from '../../../../shared/api/endpoints'
import { bearerOf } from '../../../http/bearer'
import { openRoute } from '../../../http/route'
import { useAccessKey } from '../../../services/accessKeys'
import { listHooksOfKey } from '../../../services/deliveries/programHooks'

export default openRoute(API.listHooksByKey, async ({ db, event }) => {
  const key = await useAccessKey(db, bearerOf(event), 'read')
  return { hooks: await listHooksOfKey(db, key) }
})
