import 'vuetify/styles'
import { createVuetify } from 'vuetify'
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg'
import { en } from 'vuetify/locale'
import { paletteCss, vuetifyTheme } from '~/theme/palette'

export default defineNuxtPlugin(nuxt => {
  useHead({ style: [{ key: 'palette', innerHTML: paletteCss() }] })
  nuxt.vueApp.use(
    createVuetify({
      // A copy for each instance: watchers of shared messages would stay in the server's memory.
      locale: { locale: 'en', messages: { en: structuredClone(en) } },
      ssr: { clientWidth: 1280, clientHeight: 800 },
      icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
      theme: { defaultTheme: 'light', themes: { light: vuetifyTheme('light'), dark: vuetifyTheme('dark') } },
      defaults: {
        VBtn: { variant: 'flat', rounded: 0 },
        VTextField: { variant: 'outlined', density: 'compact', rounded: 0 },
        VTextarea: { variant: 'outlined', density: 'compact', rounded: 0 },
        VCard: { rounded: 0 },
        VDialog: { maxWidth: 560 },
      },
    }),
  )
})
