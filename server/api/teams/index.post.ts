import { API } from '../../../shared/api/endpoints'
import { designerRoute } from '../../http/route'
import { keepRecord } from '../../services/people/record'
import { saveTeam } from '../../services/people/teams'

export default designerRoute(API.createTeam, async ({ db, body, doer }) => {
  const team = await saveTeam(db, null, body)
  await keepRecord(db, doer, 'team saved', {
    about: body.name,
    details: { members: String(body.members.length) },
  })
  return team
})
