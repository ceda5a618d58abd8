import { API } from '../../../../../shared/api/endpoints'
import { designerRoute } from '../../../../http/route'
import { keepRecord } from '../../../../services/people/record'
import { makeWay } from '../../../../services/ways'

export default designerRoute(API.makeWay, async ({ db, params, body, doer }) => {
  const made = await makeWay(db, params.id, body)
  await keepRecord(db, doer, 'link made', { form: params.id, about: made.name })
  return made
})
