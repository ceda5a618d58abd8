import { API } from '../../../../../shared/api/endpoints'
import { linkUseOf } from '../../../../http/linkUse'
import { openRoute } from '../../../../http/route'
import { sendFile } from '../../../../http/sendFile'
import { loadFileOfLink } from '../../../../services/files'
import { keepRecord } from '../../../../services/people/record'

export default openRoute(API.readFile, async ({ db, event, params, doer, caller }) => {
  const { turn, ...file } = await loadFileOfLink(db, linkUseOf(event, params.token, caller), params.file)
  await keepRecord(db, doer, 'file fetched', {
    form: file.formId,
    details: { response: file.responseId, question: file.question, turn },
  })
  return sendFile(event, file)
})
