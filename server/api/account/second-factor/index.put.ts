import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { setSecondFactor } from '../../../services/people/account'
import { keepRecord } from '../../../services/people/record'

export default designerRoute(API.confirmSecondFactor, async ({ db, designer, body, doer }) => {
  await setSecondFactor(db, designer, body.code, useRuntimeConfig().session.password)
  await keepRecord(db, doer, 'second factor set')
  return { done: true as const }
})
