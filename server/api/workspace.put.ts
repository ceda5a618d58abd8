import { API } from '../../shared/api/endpoints'
import { designerRoute } from '../http/route'
import { keepRecord } from '../services/people/record'
import { saveWorkspace } from '../services/workspace'

export default designerRoute(API.saveWorkspace, async ({ db, body, doer }) => {
  await saveWorkspace(db, body)
  await keepRecord(db, doer, 'workspace changed', { about: body.name })
  return { done: true as const }
})
