import { readRawBody } from 'h3'
import { LIMITS } from '../../../../core/form/limits'
import { API } from '../../../../shared/api/endpoints'
import { refuseLonger } from '../../../http/readRequest'
import { openRoute } from '../../../http/route'
import { takeFile } from '../../../services/files'

export default openRoute(API.giveFile, async ({ db, event, params, query }) => {
  refuseLonger(event, LIMITS.fileMegabytes * 1_000_000)
  const content = await readRawBody(event, false)
  return takeFile(db, params.token, query, content ?? new Uint8Array())
})
