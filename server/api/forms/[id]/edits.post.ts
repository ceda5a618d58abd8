import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { saveEdits } from '../../../services/drafts'

export default designerRoute(API.saveEdits, ({ db, params, body, designer }) =>
  saveEdits(db, params.id, designer.id, body.base, body.edits),
)
