import 'vuetify/styles'
import { createVuetify } from 'vuetify'
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg'

const light = {
  dark: false,
  colors: {
    background: '#F4F1EA',
    surface: '#FFFDF8',
    primary: '#14655A',
    secondary: '#5B6965',
    error: '#AE3F26',
    warning: '#855C06',
    info: '#2C5A87',
    success: '#14655A',
  },
}
const dark = {
  dark: true,
  colors: {
    background: '#171F1D',
    surface: '#1E2826',
    primary: '#6CC5B3',
    secondary: '#A9B5B0',
    error: '#F0937A',
    warning: '#DDB25A',
    info: '#8DBBE6',
    success: '#6CC5B3',
  },
}

export default defineNuxtPlugin(nuxt => {
  nuxt.vueApp.use(
    createVuetify({
      ssr: { clientWidth: 1280, clientHeight: 800 },
      icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
      theme: { defaultTheme: 'light', themes: { light, dark } },
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
