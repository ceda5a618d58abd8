/** A path of this application as an address that can be sent on. */
export const linkAddress = (path: string): string => new URL(path, useRequestURL().origin).href
