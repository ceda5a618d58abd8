import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { confirmOwn } from '../../../services/people/account'
import { keepRecord } from '../../../services/people/record'
import { removeSecondFactor } from '../../../services/people/secondFactor'

export default designerRoute(API.removeSecondFactor, async ({ db, designer, body, doer }) => {
  const { id } = await confirmOwn(db, designer, body.password)
  await removeSecondFactor(db, id)
  await keepRecord(db, doer, 'second factor removed')
  return { done: true as const }
})
