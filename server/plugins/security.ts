import { getRequestProtocol } from 'h3'
import { setSecurityHeaders } from '../http/securityHeaders'

/** The tags of a page that the nonce has to stand in. */
const MARKED = /<(script|style)(?=[\s>])/g

export default defineNitroPlugin(nitro => {
  nitro.hooks.hook('request', event => {
    const xForwardedProto = useRuntimeConfig().trustProxy !== ''
    setSecurityHeaders(event, getRequestProtocol(event, { xForwardedProto }) === 'https')
  })
  // What people wrote stands escaped in `body`: only what the framework itself puts there begins with these tags.
  nitro.hooks.hook('render:html', (html, { event }) => {
    const mark = (text: string) => text.replace(MARKED, `<$1 nonce="${event.context.nonce ?? ''}"`)
    html.head = html.head.map(mark)
    html.bodyPrepend = html.bodyPrepend.map(mark)
    html.bodyAppend = html.bodyAppend.map(mark)
  })
})
