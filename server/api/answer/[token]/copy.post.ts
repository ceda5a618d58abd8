import { API } from '../../../../shared/api/endpoints'
import { linkUseOf } from '../../../http/linkUse'
import { openRoute } from '../../../http/route'
import { mailCopy } from '../../../services/mailCopy'

export default openRoute(API.mailCopy, async ({ db, event, params, body, caller }) => {
  await mailCopy(db, linkUseOf(event, params.token, caller), body)
  return { done: true } as const
})
