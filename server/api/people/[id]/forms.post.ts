import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { handOverForms, loadUser } from '../../../services/people/people'
import { keepRecord } from '../../../services/people/record'

export default designerRoute(API.handOverForms, async ({ db, params, body, doer }) => {
  const from = await loadUser(db, params.id)
  const number = await handOverForms(db, params.id, body.to)
  const to = await loadUser(db, body.to)
  await keepRecord(db, doer, 'forms handed over', {
    about: from.name,
    details: { to: to.name, forms: String(number) },
  })
  return { done: true as const }
})
