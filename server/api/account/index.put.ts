import { API } from '../../../shared/api/endpoints'
import { designerRoute } from '../../http/route'
import { changePerson } from '../../services/people/people'

export default designerRoute(API.changeAccount, async ({ db, designer, body }) => {
  await changePerson(db, designer.id, { name: body.name })
  return { done: true as const }
})
