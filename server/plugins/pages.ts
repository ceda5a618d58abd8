import { keepPage } from '../http/keptPages'

export default defineNitroPlugin(nitro => {
  nitro.hooks.hook('render:response', ({ body, statusCode = 200 }, { event }) => {
    const { pageKey, nonce } = event.context
    if (pageKey !== undefined && nonce && statusCode === 200 && typeof body === 'string')
      keepPage(pageKey, body, nonce)
  })
})
