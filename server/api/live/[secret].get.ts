import { API } from '../../../shared/api/endpoints'
import { openRoute } from '../../http/route'
import { sendFile } from '../../http/sendFile'
import { readLive } from '../../services/liveTable'

export default openRoute(API.readLive, async ({ db, event, params }) =>
  sendFile(event, await readLive(db, params.secret)),
)
