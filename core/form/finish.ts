/** The destination of a route that ends the form. */
export const FINISH = 'finish'

/** How the address begins where a browser goes after sending: on the web, encrypted, or here. `//host` would be another site. */
export const FORWARD = /^(?:https:\/\/[^\s/\\]|\/(?![/\\]))/
