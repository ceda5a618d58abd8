import { API } from '../../../../../shared/api/endpoints'
import { designerRoute } from '../../../../http/route'
import { sendFile } from '../../../../http/sendFile'
import { loadDocument } from '../../../../services/documents/documents'
import { keepRecord } from '../../../../services/people/record'

export default designerRoute(API.loadDocument, async ({ db, event, params, query, doer }) => {
  const { code, ...file } = await loadDocument(db, params.id, { document: params.document, as: query.as })
  await keepRecord(db, doer, 'file fetched', { details: { response: params.id, document: code } })
  return sendFile(event, file)
})
