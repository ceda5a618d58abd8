import { API } from '../../../../shared/api/endpoints'
import { refuse } from '../../../http/refuse'
import { designerRoute } from '../../../http/route'
import { loadOpening, saveOpening } from '../../../services/openings'
import { keepRecord } from '../../../services/people/record'

export default designerRoute(API.saveOpening, async ({ db, params, body, doer, powers }) => {
  const before = await loadOpening(db, params.id)
  // Who releases can’t excuse themselves from a second person.
  if (before.settings.needsApproval !== body.needsApproval && !powers.has('own'))
    refuse(403, 'not-allowed', 'Only owners of this form say whether a second person approves its versions.')
  const opening = await saveOpening(db, params.id, body)
  await keepRecord(db, doer, 'opening changed', { form: params.id, about: opening.state })
  return opening
})
