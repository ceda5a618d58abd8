import { API } from '../../../shared/api/endpoints'
import { designerRoute } from '../../http/route'
import { sendFile } from '../../http/sendFile'
import { loadFile } from '../../services/files'
import { keepRecord } from '../../services/people/record'

export default designerRoute(API.loadFile, async ({ db, event, params, doer }) => {
  const file = await loadFile(db, params.id)
  await keepRecord(db, doer, 'file fetched', {
    form: file.formId,
    details: { response: file.responseId, question: file.question },
  })
  return sendFile(event, file)
})
