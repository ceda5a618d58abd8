import { API } from '../../../shared/api/endpoints'
import { designerRoute } from '../../http/route'
import { keepRecord } from '../../services/people/record'
import { saveTeam } from '../../services/people/teams'

export default designerRoute(API.changeTeam, async ({ db, params, body, doer }) => {
  await saveTeam(db, params.id, body)
  await keepRecord(db, doer, 'team saved', {
    about: body.name,
    details: { members: String(body.members.length) },
  })
  return { done: true as const }
})
