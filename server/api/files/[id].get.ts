import { getRouterParam, setResponseHeaders } from 'h3'
import { downloadRoute } from '../../http/route'
import { loadFile } from '../../services/files'

/** A file is always downloaded, never shown by the browser as a page of ours. */
export default downloadRoute(async ({ db, event }) => {
  const file = await loadFile(db, getRouterParam(event, 'id') ?? '')
  setResponseHeaders(event, {
    'content-type': file.mediaType,
    'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(file.name)}`,
    'x-content-type-options': 'nosniff',
    'content-security-policy': 'sandbox',
  })
  return Buffer.from(file.content)
})
