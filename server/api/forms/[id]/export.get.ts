import { API } from '../../../../shared/api/endpoints'
import { designerRoute } from '../../../http/route'
import { sendFile } from '../../../http/sendFile'
import { exportResponses } from '../../../services/exportResponses'
import { keepRecord } from '../../../services/people/record'

export default designerRoute(API.exportResponses, async ({ db, event, params, query, doer }) => {
  const file = await exportResponses(db, params.id, query)
  await keepRecord(db, doer, 'responses exported', { form: params.id, details: { format: query.format } })
  return sendFile(event, file)
})
