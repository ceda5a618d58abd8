import { setResponseHeaders } from 'h3'
import { API } from '../../../shared/api/endpoints'
import { designerRoute } from '../../http/route'
import { loadFile } from '../../services/files'
import { keepRecord } from '../../services/people/record'

/** A file is always downloaded, never shown by the browser as a page of ours. */
export default designerRoute(API.loadFile, async ({ db, event, params, doer }) => {
  const file = await loadFile(db, params.id)
  await keepRecord(db, doer, 'file fetched', {
    form: file.formId,
    details: { response: file.responseId, question: file.question },
  })
  setResponseHeaders(event, {
    'content-type': file.mediaType,
    'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(file.name)}`,
    'content-security-policy': 'sandbox',
  })
  return file.content
})
