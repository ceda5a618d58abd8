import { API } from '../../../../../shared/api/endpoints'
import { designerRoute } from '../../../../http/route'
import { keepRecord } from '../../../../services/people/record'
import { postInvitations } from '../../../../services/ways'

export default designerRoute(API.postInvitations, async ({ db, params, body, doer }) => {
  const posted = await postInvitations(db, params.id, body)
  await keepRecord(db, doer, 'links posted', { form: params.id, about: String(posted) })
  return { posted }
})
