import { API } from '../../../../../shared/api/endpoints'
import { designerRoute } from '../../../../http/route'
import { keepRecord } from '../../../../services/people/record'
import { releaseForm } from '../../../../services/releases'

export default designerRoute(API.releaseForm, async ({ db, params, body, designer, doer }) => {
  const released = await releaseForm(db, params.id, designer, body)
  await keepRecord(db, doer, 'released', {
    form: params.id,
    about: `Version ${released.number}`,
    details: { revision: String(body.revision) },
  })
  return released
})
