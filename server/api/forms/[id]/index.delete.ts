import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { deleteForm } from '../../../services/keepForms'
import { keepRecord } from '../../../services/people/record'

export default designerRoute(API.deleteForm, async ({ db, params, query, doer }) => {
  const { title, responses } = await deleteForm(db, params.id, query.confirmed)
  await keepRecord(db, doer, 'deleted', {
    form: params.id,
    about: title,
    details: { responses: String(responses) },
  })
  return { done: true as const }
})
