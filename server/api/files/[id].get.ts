import { setResponseHeaders } from 'h3'
import { designerRoute, idOf } from '../../http/route'
import { fileById } from '../../services/files'
import { database } from '../../store/current'

/** A file is always downloaded, never shown by the browser as a page of ours. */
export default designerRoute(async event => {
  const file = await fileById(await database(), idOf(event))
  setResponseHeaders(event, {
    'content-type': file.mediaType,
    'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(file.name)}`,
    'x-content-type-options': 'nosniff',
    'content-security-policy': 'sandbox',
  })
  return Buffer.from(file.content)
})
