import { getRequestHeader, getRequestIP, type H3Event } from 'h3'

/** The address that a request comes from: of the proxy's word only where one is trusted. */
export const sourceOf = (event: H3Event): string =>
  getRequestIP(event, { xForwardedFor: useRuntimeConfig().trustProxy !== '' }) ?? 'unknown'

/** What a browser says that it is. */
export const agentOf = (event: H3Event): string => getRequestHeader(event, 'user-agent') ?? ''
