import { SaveEdits } from '../../../../shared/api'
import { bodyOf, designerRoute, idOf } from '../../../http/route'
import { saveEdits } from '../../../services/drafts'
import { database } from '../../../store/current'

export default designerRoute(async (event, designer) => {
  const { base, edits } = await bodyOf(event, SaveEdits)
  return saveEdits(await database(), idOf(event), designer.id, base, edits)
})
