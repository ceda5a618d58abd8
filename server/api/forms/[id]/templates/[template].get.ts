import { API } from '../../../../../shared/api/endpoints'
import { designerRoute } from '../../../../http/route'
import { sendFile } from '../../../../http/sendFile'
import { loadTemplate } from '../../../../services/documents/templates'

export default designerRoute(API.loadTemplate, async ({ db, event, params, query }) =>
  sendFile(event, await loadTemplate(db, params.id, { ...params, ...query })),
)
