import { API } from '../../../shared/api/endpoints'
import { designerRoute } from '../../http/route'
import { invitePerson } from '../../services/people/people'
import { keepRecord } from '../../services/people/record'

export default designerRoute(API.invitePerson, async ({ db, designer, body, doer }) => {
  const posted = await invitePerson(db, body, designer.name)
  await keepRecord(db, doer, 'invited', { about: body.email, details: { role: body.role } })
  return posted
})
