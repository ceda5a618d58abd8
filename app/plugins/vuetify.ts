import 'vuetify/styles/core'
import { createVuetify } from 'vuetify'
import { vuetifyOptions } from '~/theme/options'
import { paletteCss } from '~/theme/palette'

export default defineNuxtPlugin(nuxt => {
  const nonce = ownNonce()
  useHead({ style: [{ key: 'palette', innerHTML: paletteCss(), nonce }] })
  nuxt.vueApp.use(createVuetify(vuetifyOptions(nonce)))
})
