import { setResponseHeaders, type H3Event } from 'h3'

/** Sends a file to be downloaded: it is never shown by the browser as a page of ours. */
export function sendFile<T>(event: H3Event, file: { mediaType: string; name: string; content: T }): T {
  setResponseHeaders(event, {
    'content-type': file.mediaType,
    'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(file.name)}`,
    'content-security-policy': 'sandbox',
  })
  return file.content
}
