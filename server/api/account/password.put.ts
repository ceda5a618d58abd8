import { API } from '../../../shared/api/endpoints'
import { designerRoute } from '../../http/route'
import { changePassword } from '../../services/people/account'
import { keepRecord } from '../../services/people/record'

export default designerRoute(API.changePassword, async ({ db, designer, body, doer }) => {
  await changePassword(db, designer, body)
  await keepRecord(db, doer, 'password changed')
  return { done: true as const }
})
