import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { bringTeamsToDraft } from '../../../services/followTeams'
import { loadForm } from '../../../services/loadForm'

export default designerRoute(API.loadForm, async ({ db, params, powers, designer }) => {
  if (powers.has('design')) await bringTeamsToDraft(db, params.id, designer.id)
  return loadForm(db, params.id, powers)
})
