import { API } from '../../../../shared/api/endpoints'
import { refuse } from '../../../http/refuse'
import { designerRoute } from '../../../http/route'
import { keepRecord } from '../../../services/people/record'
import { endSessionOf } from '../../../services/people/sessions'

export default designerRoute(API.endSession, async ({ db, designer, params, doer }) => {
  if (!(await endSessionOf(db, designer.id, params.id)))
    return refuse(404, 'not-found', 'This session has ended already.')
  await keepRecord(db, doer, 'session ended')
  return { done: true as const }
})
