import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { confirmOwn } from '../../../services/people/account'
import { beginSecondFactor } from '../../../services/people/secondFactor'

export default designerRoute(API.beginSecondFactor, async ({ db, designer, body }) => {
  const user = await confirmOwn(db, designer, body.password)
  return beginSecondFactor(db, user, useRuntimeConfig().session.password)
})
