import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { changePerson } from '../../../services/people/people'
import { recordChange } from '../../../services/people/recordChange'

export default designerRoute(API.changePerson, async ({ db, params, body, doer }) => {
  const before = await changePerson(db, params.id, body)
  await recordChange(db, doer, before, body)
  return { done: true as const }
})
