import { API } from '../../../../../shared/api/endpoints'
import { designerRoute } from '../../../../http/route'
import { keepRecord } from '../../../../services/people/record'
import { changeWay } from '../../../../services/ways'

export default designerRoute(API.changeWay, async ({ db, params, body, doer }) => {
  const changed = await changeWay(db, params.id, params.way, body)
  await keepRecord(db, doer, 'link changed', { form: params.id, about: changed.name })
  return changed
})
