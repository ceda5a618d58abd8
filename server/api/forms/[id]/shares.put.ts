import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { keepRecord } from '../../../services/people/record'
import { listShares, shareForm } from '../../../services/people/sharing'

export default designerRoute(API.shareForm, async ({ db, params, body, doer }) => {
  const name = await shareForm(db, params.id, body)
  await keepRecord(db, doer, 'rights changed', {
    form: params.id,
    about: name,
    details: { rights: body.rights.join(', ') || 'none' },
  })
  return listShares(db, params.id)
})
