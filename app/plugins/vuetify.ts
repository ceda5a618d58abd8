import 'vuetify/styles/core'
import { createVuetify } from 'vuetify'
import { vuetifyOptions } from '~/theme/options'
import { paletteCss } from '~/theme/palette'

export default defineNuxtPlugin(nuxt => {
  useHead({ style: [{ key: 'palette', innerHTML: paletteCss() }] })
  nuxt.vueApp.use(createVuetify(vuetifyOptions()))
})
