import { API } from '../../../shared/api/endpoints'
import { designerRoute } from '../../http/route'
import { keepRecord } from '../../services/people/record'
import { deleteTeam } from '../../services/people/teams'

export default designerRoute(API.deleteTeam, async ({ db, params, doer }) => {
  await keepRecord(db, doer, 'team deleted', { about: await deleteTeam(db, params.id) })
  return { done: true as const }
})
