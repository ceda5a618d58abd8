import { API } from '../../../../../shared/api/endpoints'
import { openRoute } from '../../../../http/route'
import { sendFile } from '../../../../http/sendFile'
import { loadFileOfLink } from '../../../../services/files'

export default openRoute(API.readFile, async ({ db, event, params }) =>
  sendFile(event, await loadFileOfLink(db, params.token, params.file)),
)
