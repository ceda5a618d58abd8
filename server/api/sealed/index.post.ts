import { API } from '../../../shared/api/endpoints'
import { maskedSourceOf } from '../../http/linkUse'
import { openRoute } from '../../http/route'
import { checkFile } from '../../services/documents/checkFile'

export default openRoute(API.checkFile, ({ db, event, body }) =>
  checkFile(db, { ...body, source: maskedSourceOf(event) }),
)
