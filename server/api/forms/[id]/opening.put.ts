import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { saveOpening } from '../../../services/openings'
import { keepRecord } from '../../../services/people/record'

export default designerRoute(API.saveOpening, async ({ db, params, body, doer }) => {
  const opening = await saveOpening(db, params.id, body)
  await keepRecord(db, doer, 'opening changed', { form: params.id, about: opening.state })
  return opening
})
